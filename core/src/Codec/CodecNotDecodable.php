<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;

/** The sound is in a format that nothing here can decode. */
final class CodecNotDecodable extends Failure
{
    public static function named(string $label): self
    {
        return new self(sprintf('The sound is %s, which Octavox cannot decode by itself; export it from the program that made it in '
            .'another form, such as AAC or PCM, or name a program that decodes it in the settings.', $label));
    }

    /** There is a decoder, but what sets it up is not there. */
    public static function withoutSetUp(string $label): self
    {
        return new self(sprintf('The sound is %s, but the bytes that set its decoder up are missing in this file or damaged; copy it '
            .'again, or export it again from the program that made it.', $label));
    }

    public static function protected(): self
    {
        return new self('The sound is protected against copying, so it cannot be used here; take a recording without protection, or ask '
            .'whoever sold it for one.');
    }

    public static function of(AudioFormat $audio): self
    {
        if ($audio->isProtected()) {
            return self::protected();
        }

        return Codecs::lacksSetUp($audio) ? self::withoutSetUp(CodecModules::describe($audio))
            : self::named(CodecModules::describe($audio));
    }

    public function code(): string
    {
        return 'codec-not-decodable';
    }
}
