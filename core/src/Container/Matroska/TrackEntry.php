<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Matroska;

use Octavox\Core\Codec\WavPack\BareBlocks;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\TrackKind;

/** What a `TrackEntry` says. */
final class TrackEntry
{
    public ?AudioFormat $sound = null;

    public TrackKind $kind = TrackKind::Text;

    public string $codecId = '';

    public string $private = '';

    public ?string $language = null;

    public string $name = '';

    public float $rate = 8000.0;

    public float $outputRate = 0.0;

    public int $channels = 1;

    public int $bits = 0;

    public int $width = 0;

    public int $height = 0;

    public int $displayWidth = 0;

    public int $displayHeight = 0;

    /** @var ?array{int, int, int, bool} primaries, transfer, matrix, full range */
    public ?array $colour = null;

    /** Nanoseconds of one frame, 0 where not stated. */
    public int $frameNanoseconds = 0;

    /** Nanoseconds that the codec is late. */
    public int $delay = 0;

    /** Bytes that were taken away from the start of every frame. */
    public string $stripped = '';

    public bool $deflated = false;

    public bool $encrypted = false;

    public function __construct(public readonly int $number) {}

    /** @return ?array{int, int} width and height of a picture element; null where it is square */
    public function spacing(): ?array
    {
        if ($this->displayWidth === 0 || $this->displayHeight === 0 || $this->width === 0
            || $this->displayWidth * $this->height === $this->displayHeight * $this->width) {
            return null;
        }

        return [$this->displayWidth * $this->height, $this->displayHeight * $this->width];
    }

    /** Whether frames stand in the file as the codec made them. */
    public function isWhole(): bool
    {
        return ! $this->deflated && $this->stripped === '';
    }

    /** The frame as the codec made it. */
    public function whole(string $frame): string
    {
        if ($this->deflated) {
            $inflated = @zlib_decode($frame, 16 * 1024 * 1024);

            return $inflated === false ? '' : $inflated;
        }

        return $this->stripped.$frame;
    }

    /**
     * A frame of sound as its decoder takes it.
     *
     * @param  string  $frame  as the codec made it
     * @param  int  $start  its first sample
     */
    public function packet(string $frame, int $start): string
    {
        return $this->sound?->codec === Codec::WavPack ? BareBlocks::whole($frame, $start,
            strlen($this->private) >= 2 ? ord($this->private[0]) | ord($this->private[1]) << 8 : BareBlocks::VERSION) : $frame;
    }
}
