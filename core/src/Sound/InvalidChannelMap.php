<?php

declare(strict_types=1);

namespace Octavox\Core\Sound;

use Octavox\Core\Failure;

/** A map of channels that cannot be read, or that asks for channels that are not there. */
final class InvalidChannelMap extends Failure
{
    public static function needs(string $word, int $needed, int $there): self
    {
        return new self(sprintf('“%s” needs %d channels, but the sound has %s; choose another layout for it.',
            ChannelMap::WORDS[$word][0] ?? $word, $needed, $there === 1 ? 'one' : (string) $there));
    }

    public static function noChannel(int $channel, int $count): self
    {
        return new self(sprintf('The channel map asks for channel %d, but the sound has only %s; channels are counted from 1.', $channel,
            $count === 1 ? 'one' : (string) $count));
    }

    public static function unreadable(string $text): self
    {
        return new self(sprintf('The channel map “%s” cannot be read; write one of %s, or channels like 1/2, 2,1 or 1@-6+2@-6.',
            mb_substr($text, 0, 80), implode(', ', array_map(strval(...), array_keys(ChannelMap::WORDS)))));
    }

    public static function gain(float $decibels): self
    {
        return new self(sprintf('A gain of %g dB is taken for a slip of the hand; write one between −60 and 60 dB.', $decibels));
    }

    public function code(): string
    {
        return 'wrong-channel-map';
    }
}
