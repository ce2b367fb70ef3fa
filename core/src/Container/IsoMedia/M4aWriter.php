<?php

declare(strict_types=1);

namespace Octavox\Core\Container\IsoMedia;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\FileUnwritable;
use Octavox\Core\Container\RunWriter;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\PacketRun;
use Octavox\Core\Tag\Tags;

/** Writes one sound track as M4A; an edit says which of the decoded samples are presented. */
final class M4aWriter implements RunWriter
{
    private readonly StreamTrack $track;

    private readonly MovieStream $movie;

    private readonly ?ChapterTrack $chapters;

    /** Of all packets so far, and samples that they hold. */
    private int $bytes = 0;

    private int $samples = 0;

    /**
     * @param  int  $skip  decoded samples to be left out at the start
     *
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function __construct(ByteSink $sink, private readonly AudioFormat $audio, Tags $tags, int $samples, private readonly int $skip)
    {
        $this->chapters = $tags->chapters === [] ? null : new ChapterTrack($tags->chapters, $samples / $audio->rate);
        $this->track = new StreamTrack('soun', SoundEntry::box($audio, false), $audio->rate, language: 'und',
            references: $this->chapters === null ? [] : ['chap' => 2]);
        $this->movie = new MovieStream($sink, 'M4A ', [$this->track, ...($this->chapters === null ? [] : [$this->chapters->track])], $tags,
            $audio->rate, self::roomBytes($audio, $samples, $tags));
    }

    /** Room for the index that is enough in all but the strangest cases. */
    public static function roomBytes(AudioFormat $audio, int $samples, Tags $tags): int
    {
        return MovieStream::indexBytes(intdiv($samples, max(1, $audio->frameLength ?: 1024)) + 8,
            intdiv($samples, max(1, $audio->rate)) + 1) + strlen(ItemListWriter::box($tags)) + strlen($audio->config)
            + ChapterTrack::INDEX_BYTES * count($tags->chapters);
    }

    /**
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function write(Packet $packet): void
    {
        $this->bytes += strlen($packet->data);
        $this->samples += $packet->length;
        $this->movie->write(0, $packet->data, $packet->length);
    }

    /**
     * @throws FileUnreadable
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws Failure
     */
    public function writeRun(PacketRun $run): void
    {
        $this->bytes += $run->data->length;
        $this->samples += $run->length();
        $this->movie->writeRun(0, $run->data, $run->sizes, $run->each);
    }

    /**
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function finish(int $samples, AudioFormat $audio): void
    {
        $this->track->describe(SoundEntry::box($this->audio, false, '',
            $this->samples === 0 ? 0 : (int) round(8 * $this->bytes * $this->audio->rate / $this->samples)));
        $this->chapters?->write($this->movie, 1);
        $this->track->present([new Edit($samples, $this->skip)]);
        $this->movie->finish();
    }
}
