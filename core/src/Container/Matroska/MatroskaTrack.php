<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Matroska;

use Octavox\Core\Codec\PacketLengths;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\LanguageCode;
use Octavox\Core\Media\SampleKind;

/** One track to be written, as its `TrackEntry` tells it. */
final readonly class MatroskaTrack
{
    /**
     * @param  int  $type  1 picture, 2 sound, 17 text
     * @param  string  $details  the `Audio` or `Video` element
     * @param  int  $delay  nanoseconds that are not presented at the start
     * @param  int  $frameNanoseconds  0 where frames differ
     * @param  bool  $timed  whether only the times tell how long packets are
     */
    private function __construct(public int $type, public string $codecId, public string $private, public string $details,
        public ?string $language, public int $delay, public int $frameNanoseconds, public string $name, public bool $timed = false) {}

    /** Whether such sound has a name in Matroska, or in WebM. */
    public static function carries(AudioFormat $audio, bool $web): bool
    {
        return self::codecId($audio) !== null && (! $web || in_array($audio->codec, [Codec::Opus, Codec::Vorbis], true))
            && ($audio->codec !== Codec::Aac || $audio->config !== '');
    }

    /** @param  int  $skip  decoded samples that are not presented at the start */
    public static function sound(AudioFormat $audio, int $skip, ?string $language = null, string $name = ''): self
    {
        $details = Elements::real(Id::SAMPLING_FREQUENCY, $audio->rate).Elements::number(Id::CHANNELS,
            $audio->channels()).($audio->bits() > 0 ? Elements::number(Id::BIT_DEPTH, $audio->bits()) : '');
        $private = match ($audio->codec) {
            Codec::Flac => "fLaC\x80\0\0\x22".$audio->config,
            default => $audio->config,
        };
        $frame = $audio->frameLength > 0 ? (int) round($audio->frameLength * 1e9 / $audio->rate) : 0;

        return new self(2, self::codecId($audio) ?? '', $private, Elements::master(Id::AUDIO, $details), $language,
            (int) round($skip * 1e9 / $audio->rate), $frame, $name, ! PacketLengths::areTold($audio));
    }

    /**
     * @param  string  $private  what the codec needs to begin
     * @param  string  $more  further children of `Video`
     */
    public static function picture(string $codecId, string $private, int $width, int $height, int $frameNanoseconds = 0, string $more = '',
        ?string $language = null): self
    {
        return new self(1, $codecId, $private, Elements::master(Id::VIDEO, Elements::number(Id::PIXEL_WIDTH, $width),
            Elements::number(Id::PIXEL_HEIGHT, $height), $more), $language, 0, $frameNanoseconds, '');
    }

    public static function text(string $codecId, string $private, ?string $language, string $name): self
    {
        return new self(17, $codecId, $private, '', $language, 0, 0, $name);
    }

    public function entry(int $number): string
    {
        return Elements::master(Id::TRACK_ENTRY,
            Elements::number(Id::TRACK_NUMBER, $number),
            // TrackUID, FlagLacing
            Elements::number(0x73C5, $number),
            Elements::number(0x9C, 0),
            Elements::number(Id::TRACK_TYPE, $this->type),
            Elements::bytes(Id::LANGUAGE, $this->language === null ? 'und' : LanguageCode::ofLibraries($this->language)),
            $this->name === '' ? '' : Elements::bytes(Id::NAME, $this->name),
            Elements::bytes(Id::CODEC_ID, $this->codecId),
            $this->private === '' ? '' : Elements::bytes(Id::CODEC_PRIVATE, $this->private),
            $this->delay === 0 ? '' : Elements::number(Id::CODEC_DELAY, $this->delay),
            // SeekPreRoll of Opus: 80 ms (RFC 7845, 4.6)
            $this->codecId === 'A_OPUS' ? Elements::number(0x56BB, 80_000_000) : '',
            $this->frameNanoseconds === 0 ? '' : Elements::number(Id::DEFAULT_DURATION, $this->frameNanoseconds),
            $this->details,
        );
    }

    private static function codecId(AudioFormat $audio): ?string
    {
        return match ($audio->codec) {
            Codec::Pcm => match ($audio->pcm?->kind) {
                SampleKind::Signed => $audio->bits() === 8 ? null : ($audio->pcm->bigEndian ? 'A_PCM/INT/BIG' : 'A_PCM/INT/LIT'),
                SampleKind::Unsigned => 'A_PCM/INT/LIT',
                SampleKind::Float => $audio->pcm->bigEndian ? null : 'A_PCM/FLOAT/IEEE',
                default => null,
            },
            Codec::Aac => 'A_AAC',
            Codec::Opus => 'A_OPUS',
            Codec::Vorbis => 'A_VORBIS',
            Codec::Flac => 'A_FLAC',
            Codec::Alac => 'A_ALAC',
            Codec::Mp3 => 'A_MPEG/L3',
            Codec::Mp2 => 'A_MPEG/L2',
            Codec::Mp1 => 'A_MPEG/L1',
            Codec::Ac3 => 'A_AC3',
            Codec::Eac3 => 'A_EAC3',
            Codec::Dts => 'A_DTS',
            Codec::TrueHd => 'A_TRUEHD',
            // The header of WAV is the private data: Matroska codec mappings, A_MS/ACM.
            Codec::WindowsMedia => $audio->config === '' ? null : 'A_MS/ACM',
            default => null,
        };
    }
}
