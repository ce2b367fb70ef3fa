<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Matroska;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Codec\Aac\AudioSpecificConfig;
use Octavox\Core\Codec\Alac\MagicCookie;
use Octavox\Core\Codec\Flac\StreamInfo;
use Octavox\Core\Codec\Opus\OpusHead;
use Octavox\Core\Codec\Vorbis\VorbisHeaders;
use Octavox\Core\Container\BrokenStructure;
use Octavox\Core\Container\Wave\FormatChunk;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\LanguageCode;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Media\TrackKind;
use Octavox\Core\Sound\Layout;

/** Reads one `TrackEntry`: RFC 9559, 5.1.4; codecs after the Matroska codec registry. */
final class TrackEntryReader
{
    /** TrackType: RFC 9559, 5.1.4.1.3 */
    private const PICTURE = 1;

    private const SOUND = 2;

    private const TEXT = 17;

    public function __construct(private readonly ElementReader $elements) {}

    /**
     * Null for what is neither picture nor sound nor text.
     *
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function read(Element $element): ?TrackEntry
    {
        $number = $this->elements->find($element, Id::TRACK_NUMBER);
        $type = $this->elements->find($element, Id::TRACK_TYPE);
        $kind = match ($type === null ? 0 : $this->elements->number($type)) {
            self::PICTURE => TrackKind::Picture,
            self::SOUND => TrackKind::Sound,
            self::TEXT => TrackKind::Text,
            default => null,
        };
        if ($number === null || $kind === null) {
            return null;
        }
        $entry = new TrackEntry($this->elements->number($number));
        $entry->kind = $kind;
        // What is not said is English: RFC 9559, 5.1.4.1.19.
        $entry->language = 'eng';
        foreach ($this->elements->children($element) as $child) {
            $this->take($entry, $child);
        }
        if ($kind === TrackKind::Sound) {
            $entry->sound = $this->audioFormat($entry);
        }

        return $entry;
    }

    /**
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function take(TrackEntry $entry, Element $child): void
    {
        match ($child->id) {
            Id::CODEC_ID => $entry->codecId = $this->elements->text($child),
            Id::CODEC_PRIVATE => $entry->private = $this->elements->content($child),
            Id::LANGUAGE => $entry->language = LanguageCode::letters($this->elements->text($child)),
            Id::LANGUAGE_BCP47 => $entry->language = LanguageCode::letters($this->elements->text($child)) ?? $entry->language,
            Id::NAME => $entry->name = $this->elements->text($child),
            Id::DEFAULT_DURATION => $entry->frameNanoseconds = $this->elements->number($child),
            Id::CODEC_DELAY => $entry->delay = $this->elements->number($child),
            Id::AUDIO => $this->audio($entry, $child),
            Id::VIDEO => $this->video($entry, $child),
            Id::CONTENT_ENCODINGS => $this->encodings($entry, $child),
            default => null,
        };
    }

    /**
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function audio(TrackEntry $entry, Element $audio): void
    {
        foreach ($this->elements->children($audio) as $child) {
            match ($child->id) {
                Id::SAMPLING_FREQUENCY => $entry->rate = $this->elements->real($child),
                Id::OUTPUT_FREQUENCY => $entry->outputRate = $this->elements->real($child),
                Id::CHANNELS => $entry->channels = $this->elements->number($child),
                Id::BIT_DEPTH => $entry->bits = $this->elements->number($child),
                default => null,
            };
        }
    }

    /**
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function video(TrackEntry $entry, Element $video): void
    {
        foreach ($this->elements->children($video) as $child) {
            match ($child->id) {
                Id::PIXEL_WIDTH => $entry->width = $this->elements->number($child),
                Id::PIXEL_HEIGHT => $entry->height = $this->elements->number($child),
                Id::DISPLAY_WIDTH => $entry->displayWidth = min(1 << 20, $this->elements->number($child)),
                Id::DISPLAY_HEIGHT => $entry->displayHeight = min(1 << 20, $this->elements->number($child)),
                Id::COLOUR => $this->colour($entry, $child),
                default => null,
            };
        }
    }

    /**
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function colour(TrackEntry $entry, Element $colour): void
    {
        $number = function (int $id, int $missing) use ($colour): int {
            $found = $this->elements->find($colour, $id);

            return $found === null ? $missing : $this->elements->number($found) & 0xFFFF;
        };
        // What is not told is 2; a range of 2 is the full one.
        $entry->colour = [$number(Id::PRIMARIES, 2), $number(Id::TRANSFER, 2), $number(Id::MATRIX, 2), $number(Id::RANGE, 0) === 2];
    }

    /**
     * RFC 9559, 5.1.4.1.31: compression 0 is zlib, 3 takes bytes away from every begin.
     *
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function encodings(TrackEntry $entry, Element $encodings): void
    {
        foreach ($this->elements->children($encodings) as $encoding) {
            $entry->encrypted = $entry->encrypted || $this->elements->find($encoding, Id::CONTENT_ENCRYPTION) !== null;
            $compression = $encoding->id === Id::CONTENT_ENCODING ? $this->elements->find($encoding, Id::CONTENT_COMPRESSION) : null;
            if ($compression === null) {
                continue;
            }
            $algorithm = $this->elements->find($compression, Id::CONTENT_ALGORITHM);
            $settings = $this->elements->find($compression, Id::CONTENT_SETTINGS);
            match ($algorithm === null ? 0 : $this->elements->number($algorithm)) {
                0 => $entry->deflated = true,
                3 => $entry->stripped = $settings === null ? '' : $this->elements->content($settings),
                default => null,
            };
        }
    }

    /**
     * @throws BrokenStructure
     * @throws BytesMissing
     */
    private function audioFormat(TrackEntry $entry): AudioFormat
    {
        $rate = max(1, min(10_000_000, (int) round($entry->rate)));
        $layout = Layout::undeclared(max(1, min(Layout::MOST_CHANNELS, $entry->channels)));
        $plain = fn (Codec $codec, int $frame = 0, string $variant = ''): AudioFormat => new AudioFormat($codec, $rate, $layout, null, '',
            $frame, $variant);
        $id = $entry->codecId;
        if ($entry->encrypted) {
            return $plain(Codec::Unknown, 0, 'protected sound');
        }

        return match (true) {
            str_starts_with($id, 'A_AAC') => $this->aac($entry, $rate),
            $id === 'A_OPUS' => OpusHead::parse($entry->private)?->audio() ?? $plain(Codec::Opus),
            $id === 'A_VORBIS' => VorbisHeaders::parse($entry->private)?->audio() ?? $plain(Codec::Vorbis),
            $id === 'A_FLAC' => StreamInfo::parse(substr($entry->private, 8))?->audio() ?? $plain(Codec::Flac),
            $id === 'A_ALAC' => MagicCookie::parse($entry->private)?->audio() ?? $plain(Codec::Alac),
            $id === 'A_MPEG/L3' => $plain(Codec::Mp3, $rate >= 32000 ? 1152 : 576),
            $id === 'A_MPEG/L2' => $plain(Codec::Mp2, 1152),
            $id === 'A_MPEG/L1' => $plain(Codec::Mp1, 384),
            $id === 'A_AC3', str_starts_with($id, 'A_AC3/') => $plain(Codec::Ac3, 1536),
            $id === 'A_EAC3' => $plain(Codec::Eac3, 1536),
            str_starts_with($id, 'A_DTS') => $plain(Codec::Dts, 512),
            $id === 'A_TRUEHD', $id === 'A_MLP' => $plain(Codec::TrueHd),
            $id === 'A_WAVPACK4' => $plain(Codec::WavPack),
            $id === 'A_PCM/INT/LIT', $id === 'A_PCM/INT/BIG',
            $id === 'A_PCM/FLOAT/IEEE' => $this->pcm($entry, $rate, $layout) ?? $plain(Codec::Unknown, 0, $id),
            $id === 'A_MS/ACM' && strlen($entry->private) >= 16 => FormatChunk::parse($entry->private,
                $this->elements->bytes->name(), 0)->audio,
            default => $plain(Codec::Unknown, 0, '“'.$id.'”'),
        };
    }

    private function pcm(TrackEntry $entry, int $rate, Layout $layout): ?AudioFormat
    {
        $bits = $entry->bits ?: 16;
        $audio = match ($entry->codecId) {
            'A_PCM/FLOAT/IEEE' => SampleFormat::float($bits),
            'A_PCM/INT/BIG' => SampleFormat::signed($bits, true),
            default => $bits === 8 ? SampleFormat::unsigned8() : SampleFormat::signed($bits),
        };

        return $audio->exists() ? AudioFormat::pcm($audio, $rate, $layout) : null;
    }

    /**
     * Old files name the kind of AAC in the codec's name and have no set-up bytes.
     *
     * @throws BytesMissing
     */
    private function aac(TrackEntry $entry, int $rate): AudioFormat
    {
        if (strlen($entry->private) >= 2) {
            return AudioSpecificConfig::parse($entry->private)->audio();
        }

        return AudioSpecificConfig::lowComplexity(str_ends_with($entry->codecId, 'SBR') ? intdiv($rate, 2) : $rate,
            max(1, min(7, $entry->channels)))->audio();
    }
}
