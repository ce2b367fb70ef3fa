<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Video;

/**
 * Cuts a stream of MPEG-1 or MPEG-2 pictures into single ones and finds when each is shown: ISO/IEC 11172-2 and 13818-2, 6.1 and 6.2.
 * Few pictures have a time of their own; the others follow from the order of showing and from how long each lasts.
 */
final class MpegPictures
{
    /** What begins a picture, or a head before it. */
    private const PICTURE = "\0\0\1\x00";

    private const SEQUENCE = "\0\0\1\xB3";

    private const GROUP = "\0\0\1\xB8";

    private const EXTENSION = "\0\0\1\xB5";

    /** Kinds of pictures: table 6-12. */
    private const BETWEEN = 3;

    /** Ticks of 90 kHz of one frame by the number in the sequence's head: table 6-4. */
    private const FRAME_TICKS = [1 => 3753.75, 3750.0, 3600.0, 3003.0, 3000.0, 1800.0, 1501.5, 1500.0];

    /** No picture is longer. */
    private const MOST_BYTES = 8 * 1024 * 1024;

    private string $bytes = '';

    /** Bytes of the stream before {@see self::$bytes}. */
    private int $before = 0;

    /** @var list<array{int, int}> place in the stream from which a time holds, and the time */
    private array $times = [];

    private float $frameTicks = 3600.0;

    private bool $progressive = false;

    /** @var list<array{string, ?int, float, bool, bool}> bytes, own time, ticks that it lasts, key, whether it is shown between others */
    private array $waiting = [];

    private ?float $clock = null;

    private bool $begun = false;

    private bool $firstField = false;

    /**
     * The head of the sequence with its extensions; empty where there is none.
     *
     * @param  string  $bytes  that begin somewhere in the stream
     */
    public static function head(string $bytes): string
    {
        $at = strpos($bytes, self::SEQUENCE);
        if ($at === false) {
            return '';
        }
        $ends = array_filter([strpos($bytes, self::GROUP, $at), strpos($bytes, self::PICTURE, $at)], is_int(...));

        return $ends === [] ? '' : substr($bytes, $at, min($ends) - $at);
    }

    /** @param  string  $head  of the sequence; frames a second, 0 where the number is unknown */
    public static function perSecond(string $head): float
    {
        return 90_000 / (self::FRAME_TICKS[ord($head[7] ?? "\0") & 15] ?? INF);
    }

    /**
     * Width and height of a picture element; null where it is square or not told: table 6-3.
     *
     * @return ?array{int, int}
     */
    public static function spacing(string $head, int $width, int $height): ?array
    {
        $shape = match (str_contains($head, self::EXTENSION) ? ord($head[7] ?? "\0") >> 4 : 1) {
            2 => [4, 3],
            3 => [16, 9],
            4 => [221, 100],
            default => null,
        };

        return $shape === null || $width === 0 || $shape[0] * $height === $shape[1] * $width ? null
            : [$shape[0] * $height, $shape[1] * $width];
    }

    /**
     * @param  ?int  $time  ticks of the first picture that begins in the bytes
     * @return iterable<array{string, int, int, bool}> in the order of decoding: bytes, ticks of decoding and of showing, key
     */
    public function feed(string $bytes, ?int $time): iterable
    {
        if ($time !== null) {
            $this->times[] = [$this->before + strlen($this->bytes), $time];
        }
        $this->bytes .= $bytes;
        while (($end = $this->end()) !== null) {
            yield from $this->take(substr($this->bytes, 0, $end));
            $this->bytes = substr($this->bytes, $end);
            $this->before += $end;
        }
        if (strlen($this->bytes) > self::MOST_BYTES) {
            $this->before += strlen($this->bytes);
            $this->bytes = '';
        }
    }

    /** @return iterable<array{string, int, int, bool}> */
    public function finish(): iterable
    {
        yield from $this->take($this->bytes);
        yield from $this->shown();
    }

    /** Where the picture ends that the bytes begin with; null where that is not known yet. */
    private function end(): ?int
    {
        $picture = strpos($this->bytes, self::PICTURE);
        if ($picture === false) {
            return null;
        }
        $next = fn (string $code, int $from): int => ($at = strpos($this->bytes, $code, $from)) === false ? PHP_INT_MAX : $at;
        $from = $picture + 4;
        $end = min($next(self::PICTURE, $from), $next(self::SEQUENCE, $from), $next(self::GROUP, $from));

        // The last four bytes may be the start of a code that is not here yet.
        return $end === PHP_INT_MAX ? null : $end;
    }

    /** @return iterable<array{string, int, int, bool}> */
    private function take(string $unit): iterable
    {
        $at = strpos($unit, self::PICTURE);
        $own = $this->ownTime(strlen($unit));
        if ($at === false || strlen($unit) < $at + 6) {
            return;
        }
        $head = self::head($unit);
        if ($head !== '') {
            $this->sequence($head);
        }
        if (! $this->begun && $head === '') {
            // What comes before the first whole picture cannot be shown.
            return;
        }
        $this->begun = true;
        $extension = $this->extension($unit, $at);
        $field = $extension !== null && ($extension[2] & 3) !== 3;
        if ($field && $this->firstField && $this->waiting !== []) {
            // The second field belongs to the first.
            $this->waiting[count($this->waiting) - 1][0] .= $unit;
            $this->firstField = false;

            return;
        }
        $this->firstField = $field;
        $between = (ord($unit[$at + 5]) >> 3 & 7) === self::BETWEEN;
        if (! $between) {
            yield from $this->shown();
        }
        $this->waiting[] = [$unit, $own, $this->frameTicks * $this->lasts($extension), $head !== '', $between];
    }

    /**
     * What waits is shown: first what stands between, then the picture that was decoded before it.
     *
     * @return iterable<array{string, int, int, bool}>
     */
    private function shown(): iterable
    {
        if ($this->waiting === []) {
            return;
        }
        $order = array_keys($this->waiting);
        if (! $this->waiting[0][4]) {
            $order[] = array_shift($order);
        }
        $this->clock ??= $this->begin($order);
        $slots = [];
        $times = [];
        foreach ($order as $index) {
            [, $own, $duration] = $this->waiting[$index];
            $time = $own === null ? $this->clock : max($this->clock - $duration / 2, (float) $own);
            $times[$index] = (int) round($time);
            $slots[] = (int) round($time);
            $this->clock = $time + $duration;
        }
        // As early as the longest picture duration: every one is decoded before it is shown.
        $early = (int) ceil(3 * $this->frameTicks);
        foreach ($this->waiting as $index => [$unit, , , $key]) {
            yield [$unit, $slots[$index] - $early, $times[$index], $key];
        }
        $this->waiting = [];
    }

    /**
     * When the first picture is shown, from the first that has a time of its own.
     *
     * @param  list<int>  $order  of what waits, as it is shown
     */
    private function begin(array $order): float
    {
        $before = 0.0;
        foreach ($order as $index) {
            [, $own, $duration] = $this->waiting[$index];
            if ($own !== null) {
                return $own - $before;
            }
            $before += $duration;
        }

        return 0.0;
    }

    private function sequence(string $head): void
    {
        $this->frameTicks = self::FRAME_TICKS[ord($head[7]) & 15] ?? $this->frameTicks;
        $at = strpos($head, self::EXTENSION);
        $this->progressive = $at === false || (ord($head[$at + 5] ?? "\0") >> 3 & 1) === 1;
    }

    /** @return ?list<int> the bytes of the picture coding extension, null where there is none: 6.2.3.1 */
    private function extension(string $unit, int $picture): ?array
    {
        $at = strpos($unit, self::EXTENSION, $picture);
        if ($at === false || strlen($unit) < $at + 9 || ord($unit[$at + 4]) >> 4 !== 8) {
            return null;
        }

        return array_map(ord(...), str_split(substr($unit, $at + 4, 5)));
    }

    /**
     * Frames that a picture is shown for: 6.3.10, repeat_first_field.
     *
     * @param  ?list<int>  $extension
     */
    private function lasts(?array $extension): float
    {
        $repeats = $extension !== null && ($extension[3] >> 1 & 1) === 1;
        $topFirst = $extension !== null && $extension[3] >> 7 === 1;

        return match (true) {
            ! $repeats => 1.0,
            $this->progressive => $topFirst ? 3.0 : 2.0,
            default => 1.5,
        };
    }

    /** The time that came with the bytes in which the unit begins; each holds for one picture. */
    private function ownTime(int $length): ?int
    {
        $own = null;
        while ($this->times !== [] && $this->times[0][0] <= $this->before) {
            [, $own] = array_shift($this->times);
        }

        return $own;
    }
}
