<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Wave;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\Cursor;
use Octavox\Core\Tag\Chapter;

/**
 * Marks in a recording and what they are called: Multimedia Programming Interface and Data Specifications 1.0, "Cue-Points Chunk" and
 * "Associated Data Chunk".
 */
final class CuePoints
{
    private const BYTES = 24;

    private const MOST = 10_000;

    /** @var array<int, int> samples from the start, by the mark's number */
    private array $places = [];

    /** @var array<int, string> by the mark's number */
    private array $labels = [];

    /**
     * @param  string  $body  of the `cue ` chunk
     *
     * @throws BytesMissing
     */
    public function take(string $body): void
    {
        $cursor = new Cursor($body);
        if ($cursor->remaining() < 4) {
            return;
        }
        for ($left = min($cursor->u32le(), self::MOST); $left > 0 && $cursor->remaining() >= self::BYTES; $left--) {
            $number = $cursor->u32le();
            $this->places[$number] = $cursor->skip(16)->u32le();
        }
    }

    /**
     * @param  string  $body  of the `adtl` list, after its name
     *
     * @throws BytesMissing
     */
    public function name(string $body): void
    {
        $cursor = new Cursor($body);
        while ($cursor->remaining() >= 8) {
            $type = $cursor->take(4);
            $length = $cursor->u32le();
            if ($length > $cursor->remaining()) {
                return;
            }
            $text = $cursor->take($length);
            if ($type === 'labl' && $length > 4) {
                /** @var array{number: int} $head */
                $head = unpack('Vnumber', $text);
                $label = rtrim(substr($text, 4), "\0");
                $this->labels[$head['number']] = mb_check_encoding($label, 'UTF-8') ? $label
                    : (string) mb_convert_encoding($label, 'UTF-8', 'Windows-1252');
            }
            if (($length & 1) === 1 && $cursor->remaining() > 0) {
                $cursor->skip(1);
            }
        }
    }

    /**
     * Both chunks for chapters; empty where there are none.
     *
     * @param  list<Chapter>  $chapters
     * @param  int  $rate  samples a second
     */
    public static function write(array $chapters, int $rate): string
    {
        $points = $labels = '';
        foreach ($chapters as $index => $chapter) {
            $place = (int) min(0xFFFFFFFF, round($chapter->starts * $rate));
            $points .= pack('V2', $index + 1, $place).'data'.pack('V3', 0, 0, $place);
            $label = pack('V', $index + 1).$chapter->title."\0";
            $labels .= 'labl'.pack('V', strlen($label)).$label.(strlen($label) % 2 === 1 ? "\0" : '');
        }

        return $points === '' ? '' : 'cue '.pack('V2', 4 + strlen($points), count($chapters)).$points.'LIST'.pack('V',
            4 + strlen($labels)).'adtl'.$labels;
    }

    /**
     * @param  int  $rate  samples a second
     * @return list<Chapter>
     */
    public function chapters(int $rate): array
    {
        $places = $this->places;
        asort($places);
        $chapters = [];
        foreach ($places as $number => $place) {
            $chapters[] = new Chapter($place / max(1, $rate), $this->labels[$number] ?? 'Mark '.(count($chapters) + 1));
        }

        return $chapters;
    }
}
