<?php

declare(strict_types=1);

namespace Octavox\Core\Container\CoreAudio;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\Cursor;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Codec\Aac\AudioSpecificConfig;
use Octavox\Core\Codec\Alac\MagicCookie;
use Octavox\Core\Container\Aiff\ChannelLayout;
use Octavox\Core\Container\BlockFile;
use Octavox\Core\Container\BrokenStructure;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\IsoMedia\ElementaryDescriptor;
use Octavox\Core\Container\NoTracks;
use Octavox\Core\Container\OpenedBytes;
use Octavox\Core\Container\PcmFile;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Diagnostic;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Media\SampleKind;
use Octavox\Core\Media\Timeline;
use Octavox\Core\Media\Track;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\TagField;
use Octavox\Core\Tag\Tags;

/** Reads the chunks of a CAF file. */
final class CoreAudioReader
{
    private const MOST_CHUNKS = 10_000;

    private const MOST_TABLE = 64 * 1024 * 1024;

    /** Flags of uncompressed samples: "Audio Description Chunk", kCAFLinearPCMFormatFlag… */
    private const FLOAT = 1;

    private const LITTLE_ENDIAN = 2;

    private string $cookie = '';

    private ?Layout $layout = null;

    private ?PacketTable $table = null;

    private Tags $tags;

    /** @var list<Diagnostic> */
    private array $diagnostics = [];

    public function __construct(private readonly ByteSource $bytes)
    {
        $this->tags = Tags::none();
    }

    /**
     * @throws Failure
     */
    public function read(): Demuxer
    {
        $size = $this->bytes->size();
        $description = null;
        $dataAt = null;
        $dataLength = 0;
        $at = 8;
        for ($seen = 0; $at + 12 <= $size && $seen < self::MOST_CHUNKS; $seen++) {
            $head = new Cursor($this->bytes->read($at, 12), $this->bytes->name(), $at);
            $name = $head->take(4);
            $length = $head->s64be();
            $at += 12;
            // −1: the last chunk, up to the end of the file
            if ($length === -1 && $name === 'data') {
                $length = $size - $at;
            }
            if ($length < 0) {
                throw BrokenStructure::at($this->bytes->name(), $at, 'a part announces a length that cannot be');
            }
            $there = min($length, $size - $at);
            if ($name === 'desc') {
                $description = Description::read(new Cursor($this->bytes->read($at, min($there, 32)), $this->bytes->name(), $at),
                    $this->bytes->name(), $at);
            } elseif ($name === 'data' && $there >= 4) {
                // Four bytes count the edits.
                [$dataAt, $dataLength] = [$at + 4, $there - 4];
                if ($there < $length) {
                    $this->diagnostics[] = Diagnostic::cutShort($length, $there, 'bytes of sound');
                }
            } else {
                $this->chunk($name, $at, $there);
            }
            $at += $length;
        }
        if ($description === null) {
            throw BrokenStructure::at($this->bytes->name(), 8, 'nothing in it says what form its samples have');
        }

        return $this->media($description, $dataAt ?? throw NoTracks::at($this->bytes->name()), $dataLength);
    }

    /** @throws BytesMissing */
    private function media(Description $description, int $at, int $length): Demuxer
    {
        $audio = $this->audio($description);
        if ($this->layout !== null && $this->layout->count() === $audio->channels() && $audio->codec !== Codec::Aac) {
            $audio = $audio->withLayout($this->layout);
        }
        if ($audio->pcm !== null) {
            return new PcmFile('caf', $this->bytes, Track::sound(1, $audio, Timeline::plain(intdiv($length, $audio->frameBytes())),
                $length), $at, $this->tags, $this->diagnostics);
        }
        $file = new OpenedBytes('caf', $this->bytes, $this->tags, $this->diagnostics);
        if ($this->table !== null && $description->packetBytes === 0) {
            $factor = max(1, intdiv($audio->rate, $description->rate));
            $coded = $this->table->count * $description->packetFrames;
            $timeline = Timeline::plain(min($this->table->frames, $coded - $this->table->priming), $this->table->priming,
                $coded)->times($factor);

            return new PacketFile($file, Track::sound(1, $audio, $timeline, $length), $this->table, $at, $at + $length,
                $description->packetFrames * $factor);
        }
        $bytes = max(1, $description->packetBytes);
        $coded = intdiv($length, $bytes) * $description->packetFrames;
        $frames = $this->table === null || $this->table->frames <= 0 ? $coded : min($coded, $this->table->frames);

        return new BlockFile($file, Track::sound(1, $audio, Timeline::plain($frames, 0, $coded), $length), $at, $at + $length,
            $bytes, $description->packetFrames);
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function chunk(string $name, int $at, int $length): void
    {
        if ($length > self::MOST_TABLE) {
            return;
        }
        if ($name === 'kuki') {
            $this->cookie = $this->bytes->read($at, $length);
        } elseif ($name === 'chan' && $length >= 8) {
            $cursor = new Cursor($this->bytes->read($at, 8), $this->bytes->name(), $at);
            $this->layout = ChannelLayout::read($cursor->u32be(), $cursor->u32be());
        } elseif ($name === 'pakt' && $length >= 24) {
            $this->table = PacketTable::read($this->bytes->read($at, $length), $this->bytes->name(), $at);
        } elseif ($name === 'info' && $length >= 4) {
            $this->information(explode("\0", $this->bytes->read($at + 4, $length - 4)));
        }
    }

    /** @param  list<string>  $strings  key and value in turn: "Information Chunk" */
    private function information(array $strings): void
    {
        for ($index = 0; $index + 1 < count($strings); $index += 2) {
            $field = CoreAudioOutput::INFORMATION[strtolower($strings[$index])] ?? TagField::ofComment($strings[$index]);
            $this->tags = $field === null ? $this->tags->addingFree($strings[$index], $strings[$index + 1])
                : $this->tags->with($field, $strings[$index + 1]);
        }
    }

    /** @throws BytesMissing */
    private function audio(Description $description): AudioFormat
    {
        $layout = Layout::undeclared($description->channels);
        $rate = $description->rate;
        $pcm = match ($description->format) {
            'lpcm' => ($description->flags & self::FLOAT) !== 0
                ? SampleFormat::float($description->bits, ($description->flags & self::LITTLE_ENDIAN) === 0)
                : SampleFormat::signed(8 * intdiv($description->bits + 7, 8), ($description->flags & self::LITTLE_ENDIAN) === 0),
            'ulaw' => new SampleFormat(SampleKind::MuLaw, 8),
            'alaw' => new SampleFormat(SampleKind::ALaw, 8),
            default => null,
        };
        if ($pcm !== null && $pcm->exists()) {
            return AudioFormat::pcm($pcm, $rate, $layout);
        }

        return match ($description->format) {
            'alac' => MagicCookie::parse($this->cookie)?->audio() ?? new AudioFormat(Codec::Alac, $rate, $layout),
            'aac ' => $this->aac($rate, $layout),
            'ima4' => new AudioFormat(Codec::AdpcmIma, $rate, $layout),
            '.mp3' => new AudioFormat(Codec::Mp3, $rate, $layout, null, '', $rate >= 32000 ? 1152 : 576),
            '.mp2' => new AudioFormat(Codec::Mp2, $rate, $layout, null, '', 1152),
            '.mp1' => new AudioFormat(Codec::Mp1, $rate, $layout, null, '', 384),
            'ac-3' => new AudioFormat(Codec::Ac3, $rate, $layout, null, '', 1536),
            default => new AudioFormat(Codec::Unknown, $rate, $layout, null, '', 0,
                '“'.preg_replace('/[^\x20-\x7E]/', '?', $description->format).'”'),
        };
    }

    /**
     * The cookie is an elementary stream descriptor or the bare set-up bytes.
     *
     * @throws BytesMissing
     */
    private function aac(int $rate, Layout $layout): AudioFormat
    {
        $config = ord($this->cookie[0] ?? "\0") === ElementaryDescriptor::STREAM ? ElementaryDescriptor::read($this->cookie)->specific
            : $this->cookie;

        return strlen($config) >= 2 ? AudioSpecificConfig::parse($config)->audio()
            : new AudioFormat(Codec::Aac, $rate, $layout, null, '', 1024);
    }
}
