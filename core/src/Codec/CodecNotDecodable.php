<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

use Octavox\Core\Failure;

/** The sound is in a form that nothing here can decode. */
final class CodecNotDecodable extends Failure
{
    public static function named(string $label): self
    {
        return new self(sprintf('The sound is %s, which Octavox cannot decode yet; export it from the program that made it in another form, such as AAC or PCM.', $label));
    }

    public function code(): string
    {
        return 'codec-not-decodable';
    }
}
