<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Aiff;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\Cursor;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Container\BlockFile;
use Octavox\Core\Container\BrokenStructure;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\IndexMissing;
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
use Octavox\Core\Tag\Id3v2;
use Octavox\Core\Tag\TagField;
use Octavox\Core\Tag\Tags;

/** Reads the chunks of an AIFF or AIFC file. */
final class AiffReader
{
    private const MOST_CHUNKS = 10_000;

    /** Packets that a writer fills up at the end. */
    private const LAST_PACKETS = 2;

    private const MOST_TAG_BYTES = 32 * 1024 * 1024;

    /** Text chunks: AIFF 1.3, "Text Chunks". */
    private const TEXTS = ['NAME' => TagField::Title, 'AUTH' => TagField::Artist, '(c) ' => TagField::Copyright,
        'ANNO' => TagField::Comment];

    private ?AudioFormat $audio = null;

    private int $announced = 0;

    private ?int $dataAt = null;

    private int $dataLength = 0;

    private ?Layout $layout = null;

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
        $packed = $this->bytes->read(8, 4) === 'AIFC';
        $at = 12;
        for ($seen = 0; $at + 8 <= $size && $seen < self::MOST_CHUNKS; $seen++) {
            $head = new Cursor($this->bytes->read($at, 8), $this->bytes->name(), $at);
            $name = $head->take(4);
            $length = $head->u32be();
            $at += 8;
            $this->chunk($name, $at, min($length, $size - $at), $length, $packed);
            $at += $length + ($length & 1);
        }
        if ($this->audio === null) {
            throw $this->dataAt === null ? IndexMissing::at($this->bytes->name())
                : BrokenStructure::at($this->bytes->name(), 12, 'nothing in it says what form its samples have');
        }
        if ($this->dataAt === null) {
            throw NoTracks::noSound($this->bytes->name());
        }

        return $this->media($this->audio, $this->dataAt);
    }

    private function media(AudioFormat $audio, int $at): Demuxer
    {
        if ($this->layout !== null && $this->layout->count() === $audio->channels()) {
            $audio = $audio->withLayout($this->layout);
        }
        if ($audio->pcm !== null) {
            $there = intdiv($this->dataLength, $audio->frameBytes());
            $samples = $this->announced > 0 ? min($there, $this->announced) : $there;

            return new PcmFile('aiff', $this->bytes, Track::sound(1, $audio, Timeline::plain($samples), $samples * $audio->frameBytes()),
                $at, $this->tags, $this->diagnostics);
        }
        // AIFF-C counts packets: 34 bytes a channel hold 64 samples, 33 bytes hold 160.
        [$bytes, $count] = match ($audio->codec) {
            Codec::AdpcmIma => [34 * $audio->channels(), 64],
            Codec::Gsm => [33, 160],
            default => [1, 0],
        };

        $coded = intdiv($this->dataLength, $bytes) * $count;
        // Some writers count samples where others count packets; a number that ends within the last packets can only be samples.
        $samples = $this->announced > $coded - self::LAST_PACKETS * $count && $this->announced < $coded ? $this->announced : $coded;

        return new BlockFile(new OpenedBytes('aiff', $this->bytes, $this->tags, $this->diagnostics),
            Track::sound(1, $audio, Timeline::plain($samples, 0, $coded), $this->dataLength), $at, $at + $this->dataLength, $bytes, $count);
    }

    /**
     * @throws BytesMissing
     * @throws BrokenStructure
     * @throws FileUnreadable
     */
    private function chunk(string $name, int $at, int $there, int $length, bool $packed): void
    {
        if ($name === 'COMM' && $there >= 18) {
            $this->audio = $this->common(new Cursor($this->bytes->read($at, min($there, 64)), $this->bytes->name(), $at), $packed, $at);
        } elseif ($name === 'SSND' && $there >= 8 && $this->dataAt === null) {
            $offset = (new Cursor($this->bytes->read($at, 4)))->u32be();
            $this->dataAt = $at + 8 + min($offset, $there - 8);
            $this->dataLength = $at + $there - $this->dataAt;
            if ($there < $length) {
                $this->diagnostics[] = Diagnostic::cutShort($length, $there, 'bytes of sound');
            }
        } elseif ($name === 'CHAN' && $there >= 12) {
            $cursor = new Cursor($this->bytes->read($at, 12), $this->bytes->name(), $at);
            $this->layout = ChannelLayout::read($cursor->u32be(), $cursor->u32be());
        } elseif (isset(self::TEXTS[$name]) && $there < 65_536) {
            $text = rtrim($this->bytes->read($at, $there), "\0");
            $this->tags = $this->tags->with(self::TEXTS[$name], mb_check_encoding($text, 'UTF-8') ? $text
                : (string) mb_convert_encoding($text, 'UTF-8', 'ISO-8859-1'));
        } elseif (strtolower(trim($name)) === 'id3' && $there <= self::MOST_TAG_BYTES) {
            $this->tags = Id3v2::read($this->bytes->read($at, $there))->over($this->tags);
        }
    }

    /**
     * @throws BrokenStructure
     * @throws BytesMissing
     */
    private function common(Cursor $cursor, bool $packed, int $at): AudioFormat
    {
        $channels = $cursor->u16be();
        $this->announced = $cursor->u32be();
        $bits = $cursor->u16be();
        $rate = self::extended($cursor->take(10));
        $type = $packed && $cursor->remaining() >= 4 ? $cursor->take(4) : 'NONE';
        if ($channels < 1 || $channels > Layout::MOST_CHANNELS || $rate < 1 || $rate > 10_000_000) {
            throw BrokenStructure::at($this->bytes->name(), $at,
                sprintf('its header names %d channels at %s Hz', $channels, number_format($rate)));
        }
        // Samples stand in whole bytes, in the upper bits: AIFF 1.3, "Sample Points and Sample Frames".
        $width = 8 * intdiv(max(1, $bits) + 7, 8);
        $layout = Layout::undeclared($channels);
        $pcm = match ($type) {
            'NONE', 'twos' => SampleFormat::signed($width, true),
            'sowt' => SampleFormat::signed($width),
            'raw ' => SampleFormat::unsigned8(),
            'in24' => SampleFormat::signed(24, true),
            'in32' => SampleFormat::signed(32, true),
            'fl32', 'FL32' => SampleFormat::float(32, true),
            'fl64', 'FL64' => SampleFormat::float(64, true),
            'alaw', 'ALAW' => new SampleFormat(SampleKind::ALaw, 8),
            'ulaw', 'ULAW' => new SampleFormat(SampleKind::MuLaw, 8),
            default => null,
        };
        if ($pcm !== null && $pcm->exists()) {
            return AudioFormat::pcm($pcm, $rate, $layout);
        }

        return match ($type) {
            'ima4' => new AudioFormat(Codec::AdpcmIma, $rate, $layout),
            'GSM ', 'agsm' => new AudioFormat(Codec::Gsm, $rate, $layout),
            default => new AudioFormat(Codec::Unknown, $rate, $layout, null, '', 0, '“'.preg_replace('/[^\x20-\x7E]/', '?', $type).'”'),
        };
    }

    /** An 80-bit number of IEEE 754, as SANE has it; rounded to a whole number of Hz. */
    private static function extended(string $bytes): int
    {
        /** @var array{e: int, m: int} $parts */
        $parts = unpack('ne/Jm', $bytes);
        $mantissa = ($parts['m'] >> 1 & PHP_INT_MAX) * 2.0;
        $value = $mantissa * 2.0 ** (($parts['e'] & 0x7FFF) - 16383 - 63);

        return $value > 0 && $value < 1e9 ? (int) round($value) : 0;
    }
}
