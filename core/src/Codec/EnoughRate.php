<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;

/**
 * The bit rate at which sound that was compressed with loss by one codec loses nothing more to the ear in another.
 *
 * Codecs differ in what they need for the same sound, so the rate of one says little about another: HE-AAC of 24 kbit/s that becomes MP3 of
 * 24 is telephone sound. The table has what each needs beside MP3, by what tests of listening that were published agree in, rounded to the
 * safe side; a second encoder hears the errors of the first, and gets a quarter more.
 */
final class EnoughRate
{
    /**
     * Rate of a codec for the sound that MP3 makes of 100. Band replication halves what AAC needs, and its parametric stereo once more;
     * Opus and Vorbis are as good as AAC-LC at least where their floors begin; Layer II and AC-3 are older; codecs of speech hold nothing
     * that others need much for.
     */
    private const NEEDS = ['aac' => 75, 'opus' => 60, 'vorbis' => 75, 'mp2' => 150, 'mp1' => 200, 'ac3' => 130, 'eac3' => 90, 'dts' => 300,
        'windows-media' => 80, 'musepack' => 80];

    private const REPLICATED = 45;

    private const PARAMETRIC = 30;

    private const USUAL = 100;

    /** Of what the first codec left. */
    private const SECOND_TIME = 1.25;

    /** Kbit/s of one and of two channels below which each codec can be heard by itself, whatever it is given; each further one as one. */
    private const LEAST = ['mp3' => [64, 128], 'mp2' => [96, 192], 'aac' => [48, 96], 'opus' => [32, 64], 'vorbis' => [48, 80],
        'ac3' => [96, 192]];

    private const LEAST_OF_OTHERS = [64, 128];

    /**
     * @param  AudioFormat  $from  of the source
     * @param  float  $kbps  of the source, over all its channels
     * @param  AudioFormat  $to  of the result
     * @return int kbit/s over all channels of the result
     */
    public static function of(AudioFormat $from, float $kbps, AudioFormat $to): int
    {
        // Fewer channels need less, more channels are made of the same sound.
        $share = min(1.0, $to->channels() / max(1, $from->channels()));
        $wanted = $kbps * $share * self::needs($to) / self::needs($from) * self::SECOND_TIME;

        return (int) ceil(max(self::least($to), $wanted));
    }

    private static function least(AudioFormat $audio): int
    {
        [$one, $two] = self::LEAST[$audio->codec->value] ?? self::LEAST_OF_OTHERS;

        return $audio->channels() === 1 ? $one : $two + max(0, $audio->channels() - 2) * $one;
    }

    private static function needs(AudioFormat $audio): int
    {
        return match (true) {
            $audio->codec === Codec::Aac && str_contains($audio->variant, 'v2') => self::PARAMETRIC,
            $audio->codec === Codec::Aac && str_contains($audio->variant, 'HE') => self::REPLICATED,
            default => self::NEEDS[$audio->codec->value] ?? self::USUAL,
        };
    }
}
