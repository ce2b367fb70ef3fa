<?php

declare(strict_types=1);

namespace Octavox\Core\Container\MpegAudio;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\FileUnwritable;
use Octavox\Core\Codec\Mp2\Mp2Facts;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Codec\RateMode;
use Octavox\Core\Container\Capabilities;
use Octavox\Core\Container\Fidelity;
use Octavox\Core\Container\Headed;
use Octavox\Core\Container\LateStart;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\SoundWriter;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\Id3v2;
use Octavox\Core\Tag\Tags;

/** MPEG audio layer II; it cannot say what to leave out, so it presents whole frames. */
final class Mp2Output implements LateStart, OutputFormat
{
    private const FRAME = 1152;

    /** kbit/s of layer II for one channel and for two: ISO/IEC 11172-3, 2.4.2.3; at the half rates ISO/IEC 13818-3. */
    private const MONO = [32, 48, 56, 64, 80, 96, 112, 128, 160, 192];

    private const STEREO = [64, 96, 112, 128, 160, 192, 224, 256, 320, 384];

    private const HALF = [8, 16, 24, 32, 40, 48, 56, 64, 80, 96, 112, 128, 144, 160];

    public function name(): string
    {
        return 'mp2';
    }

    public function container(): string
    {
        return $this->name();
    }

    public function label(): string
    {
        return 'MP2';
    }

    public function extension(): string
    {
        return 'mp2';
    }

    public function capabilities(): Capabilities
    {
        return new Capabilities(Fidelity::Lossy, 'for broadcasting and video discs', [], Mp2Facts::RATES, 2,
            [64, 96, 128, 160, 192, 224, 256, 320, 384], holdsChapters: true, rateModes: [RateMode::Constant],
            stereoCoding: true, checksums: true);
    }

    public function audio(AudioFormat $source, int $rate, Layout $layout, ?int $bits): AudioFormat
    {
        return new AudioFormat(Codec::Mp2, $rate, $layout, null, '', self::FRAME);
    }

    public function rateControl(RateControl $asked, AudioFormat $audio): RateControl
    {
        $kbps = $asked->kbps ?: ($audio->rate < 32000 ? 64 : 112) * $audio->channels();
        $possible = $audio->rate < 32000 ? self::HALF : ($audio->channels() === 1 ? self::MONO : self::STEREO);
        usort($possible, fn (int $a, int $b): int => abs($a - $kbps) <=> abs($b - $kbps));

        return RateControl::exactly($possible[0]);
    }

    public function carries(AudioFormat $source): bool
    {
        return $source->codec === Codec::Mp2;
    }

    public function startsLate(AudioFormat $audio): int
    {
        return Mp2Facts::DELAY;
    }

    public function presented(AudioFormat $audio, int $samples): int
    {
        return self::FRAME * intdiv($samples + Mp2Facts::DELAY + self::FRAME - 1, self::FRAME);
    }

    public function presentedKept(AudioFormat $audio, int $coded, int $skip, int $samples): int
    {
        return $coded;
    }

    public function predict(AudioFormat $audio, RateControl $rateControl, int $samples, Tags $tags): int
    {
        return intdiv($samples * $rateControl->kbps * 125, $audio->rate) + strlen(Id3v2::write($tags));
    }

    /**
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function writer(ByteSink $sink, AudioFormat $audio, Tags $tags, int $samples, int $skip, string $maker): SoundWriter
    {
        return new Headed($sink, Id3v2::write($tags));
    }
}
