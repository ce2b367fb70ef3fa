<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Ogg;

use Octavox\Core\Codec\Flac\StreamInfo;
use Octavox\Core\Codec\Opus\OpusHead;
use Octavox\Core\Codec\Speex\SpeexHeader;
use Octavox\Core\Codec\Vorbis\VorbisHeaders;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Tag\Tags;
use Octavox\Core\Tag\VorbisComment;

/** One stream among the pages, as its first packets tell it: what it is and how many packets are set-up. */
final class LogicalStream
{
    /** @var list<string> */
    private array $headers = [];

    private int $wanted;

    private readonly string $kind;

    public function __construct(public readonly int $serial, string $first)
    {
        $this->kind = match (true) {
            str_starts_with($first, 'OpusHead') => 'opus',
            str_starts_with($first, "\x01vorbis") => 'vorbis',
            str_starts_with($first, "\x7FFLAC") => 'flac',
            str_starts_with($first, 'Speex   ') => 'speex',
            str_starts_with($first, "\x80theora"), str_starts_with($first, 'BBCD') => 'picture',
            default => 'other',
        };
        $this->wanted = match ($this->kind) {
            'opus', 'speex' => 2,
            'vorbis' => 3,
            // RFC 9639, 10.1: the number of further header packets; 0 where it is not known
            'flac' => 1 + max(1, ord($first[7] ?? "\0") << 8 | ord($first[8] ?? "\0")),
            default => 1,
        };
        $this->headers[] = $first;
    }

    public function isComplete(): bool
    {
        return count($this->headers) >= $this->wanted;
    }

    public function headerPackets(): int
    {
        return $this->wanted;
    }

    public function isPicture(): bool
    {
        return $this->kind === 'picture';
    }

    public function add(string $packet): void
    {
        $this->headers[] = $packet;
    }

    /** Null where it is no sound. */
    public function audio(): ?AudioFormat
    {
        return match ($this->kind) {
            'opus' => OpusHead::parse($this->headers[0])?->audio(),
            'vorbis' => VorbisHeaders::of($this->headers[0], $this->headers[1] ?? '', $this->headers[2] ?? '')?->audio(),
            'flac' => StreamInfo::parse(substr($this->headers[0], 17))?->audio(),
            'speex' => SpeexHeader::parse($this->headers[0])?->audio(),
            default => null,
        };
    }

    /** Samples at the start that are not presented. */
    public function skip(): int
    {
        return $this->kind === 'opus' ? OpusHead::parse($this->headers[0])->skip ?? 0 : 0;
    }

    public function tags(): Tags
    {
        $comment = $this->headers[1] ?? '';

        return match ($this->kind) {
            'opus' => VorbisComment::read(substr($comment, 8)),
            'vorbis' => VorbisComment::read(substr($comment, 7)),
            'flac' => VorbisComment::read(substr($comment, 4)),
            'speex' => VorbisComment::read($comment),
            default => Tags::none(),
        };
    }

    public function codec(): Codec
    {
        return $this->audio()->codec ?? Codec::Unknown;
    }
}
