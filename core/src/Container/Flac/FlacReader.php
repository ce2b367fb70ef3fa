<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Flac;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\Cursor;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Codec\Flac\StreamInfo;
use Octavox\Core\Container\BrokenStructure;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Media\Diagnostic;
use Octavox\Core\Media\Timeline;
use Octavox\Core\Media\Track;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\Tags;
use Octavox\Core\Tag\VorbisComment;

/** Reads the metadata blocks and finds where the sound really ends. */
final class FlacReader
{
    /** RFC 9639, 8.1, table 2: types of metadata blocks. */
    private const STREAM_INFO = 0;

    private const COMMENTS = 4;

    private const PICTURE = 6;

    private const MOST_BLOCKS = 1000;

    private ?StreamInfo $info = null;

    private Tags $tags;

    private ?Layout $layout = null;

    public function __construct(private readonly ByteSource $bytes, private readonly int $start)
    {
        $this->tags = Tags::none();
    }

    /**
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function read(): Demuxer
    {
        $at = $this->start + 4;
        $last = false;
        for ($seen = 0; ! $last && $seen < self::MOST_BLOCKS; $seen++) {
            $head = new Cursor($this->bytes->read($at, 4), $this->bytes->name(), $at);
            $type = $head->u8();
            $length = $head->u24be();
            $last = ($type & 0x80) !== 0;
            $this->block($type & 0x7F, $at + 4, $length);
            $at += 4 + $length;
        }
        $info = $this->info ?? throw BrokenStructure::at($this->bytes->name(), $this->start,
            'its first part does not say what form its samples have');
        $frames = new FlacFrames($this->bytes, $at, $info);
        $there = $frames->samples;
        $diagnostics = $frames->another === null ? [] : [Diagnostic::anotherRecording($frames->another)];
        $samples = $info->samples === 0 ? $there : min($there, $info->samples);
        if ($samples < $info->samples || $frames->first > 0) {
            $diagnostics[] = Diagnostic::cutShort(max($info->samples, $samples), $samples - $frames->first);
        }
        $layout = $this->layout !== null && $this->layout->count() === $info->channels ? $this->layout : null;
        $track = Track::sound(1, $info->audio($layout), Timeline::plain($samples - $frames->first, $frames->first, $samples),
            ($frames->another ?? $this->bytes->size()) - $at);

        return new FlacFile($this->bytes, $track, $frames, $this->tags, $diagnostics);
    }

    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function block(int $type, int $at, int $length): void
    {
        if ($type === self::STREAM_INFO) {
            $this->info = StreamInfo::parse($this->bytes->read($at, min($length, StreamInfo::BYTES)));
        } elseif ($type === self::COMMENTS) {
            $comments = $this->bytes->read($at, $length);
            $this->tags = VorbisComment::read($comments)->withCover($this->tags->cover);
            // RFC 9639, 8.6.2
            $mask = VorbisComment::value($comments, 'WAVEFORMATEXTENSIBLE_CHANNEL_MASK');
            if ($mask !== null && preg_match('/^0x([0-9a-f]{1,8})$/i', $mask, $match) === 1) {
                $bits = (int) hexdec($match[1]);
                $this->layout = Layout::fromMask($bits, substr_count(decbin($bits), '1'));
            }
        } elseif ($type === self::PICTURE && $this->tags->cover === null) {
            $this->tags = $this->tags->withCover(VorbisComment::cover($this->bytes->read($at, $length)));
        }
    }
}
