<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

use Octavox\Core\Media\AudioFormat;

/**
 * The bit rate at which sound that was compressed with loss by one codec loses nothing more to the ear in another.
 *
 * Codecs differ in what they need for the same sound, so the rate of one says little about another: HE-AAC of 24 kbit/s that becomes MP3 of
 * 24 is telephone sound. Each module tells what its codec needs beside MP3, by what published listening tests agree in, rounded to the
 * safe side: Opus and Vorbis are as good as AAC-LC at least where their floors begin, Layer II and AC-3 are older; a second encoder hears
 * the errors of the first, and gets a quarter more.
 */
final class EnoughRate
{
    /** Of what the first codec left. */
    private const SECOND_TIME = 1.25;

    /**
     * @param  AudioFormat  $from  of the source
     * @param  float  $kbps  of the source, over all its channels
     * @param  AudioFormat  $to  of the result
     * @return int kbit/s over all channels of the result
     */
    public static function kbps(AudioFormat $from, float $kbps, AudioFormat $to): int
    {
        // Fewer channels need less, more channels are made of the same sound.
        $share = min(1.0, $to->channels() / max(1, $from->channels()));
        $wanted = $kbps * $share * CodecModules::of($to->codec)->need($to) / CodecModules::of($from->codec)
            ->need($from) * self::SECOND_TIME;

        return (int) ceil(max(self::least($to), $wanted));
    }

    private static function least(AudioFormat $audio): int
    {
        [$one, $two] = CodecModules::of($audio->codec)->leastKbps();

        return $audio->channels() === 1 ? $one : $two + max(0, $audio->channels() - 2) * $one;
    }
}
