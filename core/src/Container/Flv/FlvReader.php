<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Flv;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Codec\Aac\AudioSpecificConfig;
use Octavox\Core\Codec\Mp3\MpegFrameParser;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\NoTracks;
use Octavox\Core\Container\RisingTimes;
use Octavox\Core\Container\StreamClock;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Diagnostic;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Media\SampleKind;
use Octavox\Core\Media\Segment;
use Octavox\Core\Media\Timeline;
use Octavox\Core\Media\Track;
use Octavox\Core\Media\VideoFormat;
use Octavox\Core\Sound\Layout;

/** Walks the heads of all tags: there is no index. Times are milliseconds. */
final class FlvReader
{
    private ?AudioFormat $audio = null;

    private ?int $firstSound = null;

    private int $soundBytes = 0;

    private ?StreamClock $clock = null;

    private RisingTimes $times;

    private ?int $firstPicture = null;

    private int $lastPicture = 0;

    private int $pictures = 0;

    private int $pictureBytes = 0;

    private int $pictureCodec = 0;

    /** @var array{int, int} width and height, 0 where nothing tells */
    private array $size = [0, 0];

    public function __construct(private readonly ByteSource $bytes)
    {
        $this->times = FlvFile::times();
    }

    /**
     * @throws NoTracks
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function read(): Demuxer
    {
        $walk = new FlvTags($this->bytes);
        foreach ($walk->all() as $tag) {
            if ($tag->kind === FlvTags::SOUND && $tag->bytes > 0) {
                $this->sound($tag);
            } elseif ($tag->kind === FlvTags::PICTURE && $tag->bytes > 0) {
                $this->pictureCodec = ord($tag->head[0]) & 15;
                if ($this->pictureCodec === 7 && ord($tag->head[1] ?? "\1") === 0 && $this->size === [0, 0]) {
                    $this->size = FlvFile::size(FlvFile::record($this->bytes, $tag));
                }
                if (! ($this->pictureCodec === 7 && ord($tag->head[1] ?? "\1") !== 1)) {
                    $time = $this->times->at($tag->time);
                    $this->firstPicture ??= $time;
                    $this->lastPicture = max($this->lastPicture, $time);
                    $this->pictures++;
                }
                $this->pictureBytes += $tag->bytes;
            }
        }
        $tracks = [];
        if ($this->firstPicture !== null) {
            $tracks[] = $this->picture(1, $this->firstPicture);
        }
        if ($this->audio !== null) {
            $rate = $this->audio->rate;
            $samples = $this->clock?->end() ?? 0;
            $tracks[] = Track::sound(count($tracks) + 1, $this->audio,
                Timeline::edited((int) round(($this->firstSound ?? 0) * $rate / 1000), [Segment::media(0, $samples)], $samples),
                $this->soundBytes);
        }
        if ($tracks === []) {
            throw NoTracks::at($this->bytes->name());
        }

        $anew = max($this->times->bases(), $this->clock?->bases() ?? 0);

        return new FlvFile($this->bytes, $tracks, $this->firstSound ?? 0, $anew === 0 ? [] : [Diagnostic::timeBeginsAnew($anew)]);
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function sound(FlvTag $tag): void
    {
        $aac = ord($tag->head[0]) >> 4 === 10;
        if ($aac && ord($tag->head[1] ?? "\0") === 0) {
            $config = $this->bytes->read($tag->at + 2, min(64, max(0, $tag->bytes - 2)));
            $this->audio ??= strlen($config) >= 2 ? AudioSpecificConfig::parse($config)->audio() : null;

            return;
        }
        $this->audio ??= $this->audio($tag);
        $this->firstSound ??= $tag->time;
        $this->soundBytes += $tag->bytes - ($aac ? 2 : 1);
        $this->clock ??= new StreamClock($this->audio->rate / 1000, $this->audio->rate);
        $this->clock->at($tag->time - $this->firstSound, FlvFile::samples($this->audio, $tag), true);
    }

    /**
     * E.4.2.1: format, rate, bit depth and channels in one byte.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function audio(FlvTag $tag): AudioFormat
    {
        $facts = ord($tag->head[0]);
        $rate = [5512, 11025, 22050, 44100][$facts >> 2 & 3];
        $layout = Layout::undeclared(($facts & 1) + 1);
        $bits = ($facts & 2) !== 0 ? 16 : 8;
        $plain = fn (string $name): AudioFormat => new AudioFormat(Codec::Unknown, $rate, $layout, null, '', 0, $name);

        return match ($facts >> 4) {
            0, 3 => AudioFormat::pcm($bits === 8 ? SampleFormat::unsigned8() : SampleFormat::signed(16), $rate, $layout),
            1 => $plain('ADPCM of Flash'),
            2, 14 => (new MpegFrameParser)->audio($this->bytes->read($tag->at + 1, min(4, $tag->bytes - 1))),
            4, 5, 6 => $plain('Nellymoser'),
            7 => AudioFormat::pcm(new SampleFormat(SampleKind::ALaw, 8), 8000, $layout),
            8 => AudioFormat::pcm(new SampleFormat(SampleKind::MuLaw, 8), 8000, $layout),
            10 => new AudioFormat(Codec::Aac, $rate, $layout, null, '', 1024),
            11 => $plain('Speex in Flash'),
            default => $plain('sound form '.($facts >> 4)),
        };
    }

    private function picture(int $number, int $first): Track
    {
        // E.4.3.1
        [$codec, $label] = match ($this->pictureCodec) {
            7 => [Codec::H264, 'H.264'],
            12 => [Codec::H265, 'H.265'],
            2 => [Codec::Unknown, 'H.263'],
            4, 5 => [Codec::Unknown, 'VP6'],
            default => [Codec::Unknown, 'screen video'],
        };
        $seconds = ($this->lastPicture - $first) / 1000;
        $rate = $seconds > 0 ? ($this->pictures - 1) / $seconds : 0.0;

        return Track::picture($number,
            new VideoFormat($codec, $label, $this->size[0], $this->size[1], $rate, $first / 1000, $seconds + ($rate > 0 ? 1 / $rate : 0)),
            $this->pictureBytes);
    }
}
