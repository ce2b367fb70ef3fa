<?php

declare(strict_types=1);

namespace Octavox\Core\Container\IsoMedia;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Container\BrokenStructure;
use Octavox\Core\Media\LanguageCode;
use Octavox\Core\Media\TrackKind;

/** Reads one `trak`: what it is, when it plays, where its samples are. */
final class TrackReader
{
    /** Edits of one track; more are damage. */
    private const MOST_EDITS = 10_000;

    /** @param  int  $limit  bytes of the file in which the samples are */
    public function __construct(
        private readonly BoxReader $boxes,
        private readonly Box $box,
        private readonly int $movieTimescale,
        private readonly int $number,
        private readonly int $limit,
    ) {}

    /**
     * Null for tracks that are neither sound nor picture nor text nor time code.
     *
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function read(): ?TrackTable
    {
        $media = $this->boxes->find($this->box, 'mdia');
        $handler = $media === null ? null : $this->boxes->find($media, 'hdlr');
        if ($media === null || $handler === null) {
            return null;
        }
        $name = $this->boxes->head($handler, 12)->skip(8)->take(4);
        $kind = match ($name) {
            'soun' => TrackKind::Sound,
            'vide' => TrackKind::Picture,
            'text', 'sbtl', 'subt', 'clcp' => TrackKind::Text,
            'tmcd' => TrackKind::Timecode,
            default => null,
        };
        $table = $this->boxes->find($media, 'minf/stbl');
        if ($kind === null || $table === null) {
            return null;
        }
        [$timescale, $language] = $this->mediaHeader($media);
        $description = $this->boxes->find($table, 'stsd');

        $header = $this->boxes->find($media, 'minf/gmhd') ?? $this->boxes->find($media, 'minf/nmhd')
            ?? $this->boxes->find($media, 'minf/sthd');

        return new TrackTable(
            $this->number,
            new TrackHead($this->identity(), $kind, $timescale, $language, $name, $this->matrix(), $this->shape()),
            $description === null ? null : (new SampleEntryReader($this->boxes))->read($description, $kind),
            $this->movieTimescale,
            $this->edits(),
            SampleTable::read($this->boxes, $table, $this->limit),
            $header,
        );
    }

    /**
     * The nine numbers that place and turn the picture; empty where they change nothing.
     *
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function matrix(): string
    {
        $header = $this->boxes->find($this->box, 'tkhd');
        if ($header === null || $header->bodyLength() < 84) {
            return '';
        }
        $long = $this->boxes->head($header, 1)->u8() === 1;
        if ($long && $header->bodyLength() < 96) {
            return '';
        }
        $matrix = $this->boxes->content($header)->skip($long ? 52 : 40)->take(36);

        return $matrix === pack('N9', 0x10000, 0, 0, 0, 0x10000, 0, 0, 0, 0x40000000) ? '' : $matrix;
    }

    /**
     * @return array{float, float} width and height in which the picture is shown, zeros where that is not told
     *
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function shape(): array
    {
        $header = $this->boxes->find($this->box, 'tkhd');
        $long = $header !== null && $header->bodyLength() > 0 && $this->boxes->head($header, 1)->u8() === 1;
        if ($header === null || $header->bodyLength() < ($long ? 96 : 84)) {
            return [0.0, 0.0];
        }
        $cursor = $this->boxes->content($header)->skip($long ? 88 : 76);

        return [$cursor->u32be() / 65536, $cursor->u32be() / 65536];
    }

    /**
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function identity(): int
    {
        $header = $this->boxes->find($this->box, 'tkhd');
        if ($header === null) {
            return $this->number;
        }
        $cursor = $this->boxes->content($header);

        return $cursor->u8() === 1 ? $cursor->skip(19)->u32be() : $cursor->skip(11)->u32be();
    }

    /**
     * @return array{int, ?string} ticks a second, language
     *
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function mediaHeader(Box $media): array
    {
        $header = $this->boxes->find($media, 'mdhd');
        if ($header === null) {
            return [1000, null];
        }
        $cursor = $this->boxes->content($header);
        $long = $cursor->u8() === 1;
        $timescale = max(1, $cursor->skip($long ? 19 : 11)->u32be());
        $code = $cursor->skip($long ? 8 : 4)->u16be();
        // ISO/IEC 14496-12, 8.4.2.3: three letters of five bits; below 0x400 QuickTime's own numbers, of which 0 is English.
        $letters = chr(0x60 + ($code >> 10 & 31)).chr(0x60 + ($code >> 5 & 31)).chr(0x60 + ($code & 31));

        return [$timescale, $code < 0x400 ? QuickTimeLanguage::letters($code) : LanguageCode::letters($letters)];
    }

    /**
     * @return list<Edit>
     *
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function edits(): array
    {
        $list = $this->boxes->find($this->box, 'edts/elst');
        if ($list === null) {
            return [];
        }
        $cursor = $this->boxes->content($list);
        $long = $cursor->u8() === 1;
        $count = $cursor->skip(3)->u32be();
        $edits = [];
        while ($count-- > 0 && $cursor->remaining() >= ($long ? 20 : 12) && count($edits) < self::MOST_EDITS) {
            $duration = $long ? $cursor->u64be() : $cursor->u32be();
            $edits[] = new Edit($duration, $long ? $cursor->s64be() : $cursor->s32be());
            $cursor->skip(4);
        }

        return $edits;
    }
}
