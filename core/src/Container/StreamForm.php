<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

use Octavox\Core\Codec\Codec;
use Octavox\Core\Codec\Framings;
use Octavox\Core\Codec\SoundForm;

/** What the first packet of a stream says of its form: rate and channels stand in every frame, whatever the container's entry announces. */
final class StreamForm
{
    /** Bytes of a packet that tell it. */
    public const BYTES = 8192;

    /** AAC in a container has no header of its own in its packets. */
    public static function isTold(SoundForm $form): bool
    {
        return $form->codec !== Codec::Aac && Framings::for($form->codec) !== null;
    }

    /** @param  string  $packet  the first bytes of the first packet that is not empty; where it is no frame, the container's word stands */
    public static function of(SoundForm $form, string $packet): SoundForm
    {
        $framing = Framings::for($form->codec);
        if ($framing === null || $framing->at(substr($packet, 0, $framing->headBytes())) === null) {
            return $form;
        }

        return $framing->form(str_pad($packet, 16, "\0"));
    }
}
