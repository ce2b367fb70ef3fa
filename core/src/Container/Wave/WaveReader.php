<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Wave;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\Cursor;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Container\BrokenStructure;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\IndexMissing;
use Octavox\Core\Container\NoTracks;
use Octavox\Core\Container\OpenedBytes;
use Octavox\Core\Failure;
use Octavox\Core\Media\Diagnostic;
use Octavox\Core\Media\Findings;
use Octavox\Core\Media\Severity;
use Octavox\Core\Tag\Id3v2;
use Octavox\Core\Tag\RiffInfo;
use Octavox\Core\Tag\Tags;

/** Reads the chunks of a WAV file; what an interrupted recorder left wrong in its lengths is made good. */
final class WaveReader
{
    /** A length that a recorder writes before it knows better. */
    private const UNKNOWN_LENGTH = 0xFFFFFFFF;

    private const MOST_CHUNKS = 10_000;

    private const MOST_TAG_BYTES = 32 * 1024 * 1024;

    private ?FormatChunk $format = null;

    private int $announcedSamples = 0;

    private ?int $dataAt = null;

    private int $dataLength = 0;

    private Tags $tags;

    /** @var list<Diagnostic> */
    private array $diagnostics = [];

    private int $longData = 0;

    /** Whether numbers begin with the most significant byte. */
    private bool $turned = false;

    private string $notes = '';

    private readonly CuePoints $cues;

    public function __construct(private readonly ByteSource $bytes)
    {
        $this->tags = Tags::none();
        $this->cues = new CuePoints;
    }

    /**
     * @throws Failure
     */
    public function read(): Demuxer
    {
        $size = $this->bytes->size();
        $wide = ! in_array($this->bytes->read(0, 4), ['RIFF', 'RIFX'], true);
        $this->turned = $this->bytes->read(0, 4) === 'RIFX';
        $at = 12;
        for ($seen = 0; $at + 8 <= $size && $seen < self::MOST_CHUNKS; $seen++) {
            $head = new Cursor($this->bytes->read($at, 8), $this->bytes->name(), $at);
            $name = $head->take(4);
            $length = $this->turned ? $head->u32be() : $head->u32le();
            $at += 8;
            if ($name === 'data') {
                $length = $this->data($at, $length, $wide);
            } else {
                $this->chunk($name, $at, min($length, $size - $at));
            }
            $at += $length + ($length & 1);
        }
        if ($this->format === null) {
            throw $this->dataAt === null ? IndexMissing::at($this->bytes->name())
                : BrokenStructure::at($this->bytes->name(), 12, 'nothing in it says what form its samples have');
        }
        if ($this->dataAt === null) {
            throw NoTracks::at($this->bytes->name());
        }

        $tags = $this->notes === '' ? $this->tags : RecorderNotes::read($this->notes, $this->tags);

        return SoundPart::open(new OpenedBytes('wav', $this->bytes, $tags, $this->diagnostics), $this->format, $this->dataAt,
            $this->dataLength,
            $this->announcedSamples, $this->cues);
    }

    /**
     * Takes the samples' place and gives how many bytes they really have.
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function data(int $at, int $length, bool $wide): int
    {
        $left = $this->bytes->size() - $at;
        if ($this->dataAt !== null) {
            return min($length, $left);
        }
        $this->dataAt = $at;
        $real = $wide && $length === self::UNKNOWN_LENGTH ? $this->longData : $length;
        if ($real === 0 && $left > 0 && $this->announcedLength() < $this->bytes->size() - 8 || ! $wide
            && $length === self::UNKNOWN_LENGTH) {
            $this->diagnostics[] = new Diagnostic(new Findings\NeverFinished(found: 'lengths'), Severity::Warn);
            $real = $left;
        } elseif ($real > $left) {
            $this->diagnostics[] = Diagnostic::cutShort($real, $left, 'bytes of sound');
            $real = $left;
        }

        return $this->dataLength = $real;
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function announcedLength(): int
    {
        $cursor = new Cursor($this->bytes->read(4, 4));

        return $this->turned ? $cursor->u32be() : $cursor->u32le();
    }

    /**
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function chunk(string $name, int $at, int $length): void
    {
        if ($this->turned) {
            // Nobody writes anything else of use in this form.
            $this->format ??= $name === 'fmt '
                ? FormatChunk::turned($this->bytes->read($at, min($length, 1024)), $this->bytes->name(), $at) : null;
        } elseif ($name === 'fmt ' && $this->format === null) {
            $this->format = FormatChunk::parse($this->bytes->read($at, min($length, 1024)), $this->bytes->name(), $at);
        } elseif ($name === 'bext' && $length >= BroadcastExtension::BYTES) {
            $this->tags = BroadcastExtension::read($this->bytes->read($at, min($length,
                BroadcastExtension::BYTES + BroadcastExtension::MOST_HISTORY)), $this->tags);
        } elseif ($name === 'fact' && $length >= 4) {
            $this->announcedSamples = (new Cursor($this->bytes->read($at, 4)))->u32le();
        } elseif ($name === 'ds64' && $length >= 16) {
            $this->longData = (new Cursor($this->bytes->read($at, 16), $this->bytes->name(), $at))->skip(8)->u64le();
        } elseif ($name === 'LIST' && $length >= 4 && $length <= self::MOST_TAG_BYTES && $this->bytes->read($at, 4) === 'INFO') {
            $this->tags = RiffInfo::read($this->bytes->read($at + 4, $length - 4))->over($this->tags);
        } elseif ($name === 'LIST' && $length >= 4 && $length <= self::MOST_TAG_BYTES && $this->bytes->read($at, 4) === 'adtl') {
            $this->cues->name($this->bytes->read($at + 4, $length - 4));
        } elseif ($name === 'cue ' && $length <= self::MOST_TAG_BYTES) {
            $this->cues->take($this->bytes->read($at, $length));
        } elseif ($name === 'iXML' && $length <= RecorderNotes::MOST_BYTES) {
            $this->notes = $this->bytes->read($at, $length);
        } elseif (strtolower($name) === 'id3 ' && $length <= self::MOST_TAG_BYTES) {
            $this->tags = Id3v2::read($this->bytes->read($at, $length))->over($this->tags);
        }
    }
}
