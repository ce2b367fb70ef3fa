<?php

declare(strict_types=1);

namespace Octavox\Core\Decode;

use Octavox\Core\Failure;

/** A program that the owner named as a decoder did not decode. */
final class OutsideDecoderFailed extends Failure
{
    public static function absent(string $path, string $codec): self
    {
        return new self(sprintf('The program that decodes %s here could not be begun; look in the settings whether it is still where it '
            .'was.', $codec), $path);
    }

    public static function silent(string $path, string $codec): self
    {
        return new self(sprintf('The program that decodes %s here went silent and was ended; nothing was made of it. Try it on '
            .'this file by hand.', $codec), $path);
    }

    public static function ended(string $path, string $codec, int $status, string $complaint): self
    {
        return new self(sprintf('The program that decodes %s here ended with %s%s; nothing was made of it.', $codec,
            $status < 0 ? 'a signal' : "the number $status", $complaint === '' ? '' : ' and said: '.$complaint), $path);
    }

    /** @param  string  $difference  such as `22,050 Hz instead of 44,100` */
    public static function differing(string $path, string $codec, string $difference): self
    {
        return new self(sprintf('The program that decodes %s here gave something else than the file announces (%s), so nothing was made of '
            .'it.', $codec, $difference), $path);
    }

    public function code(): string
    {
        return 'outside-decoder';
    }
}
