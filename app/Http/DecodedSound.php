<?php

declare(strict_types=1);

namespace App\Http;

use App\Processes\CoreProcess;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\StreamedResponse;

/**
 * The sound of a track as a WAV of 16 bits that every browser plays, decoded here as far as it is asked for; nothing of it is kept.
 * The header is 44 bytes (RIFF, format 1), so that each byte asked for tells the sample it belongs to.
 */
final class DecodedSound
{
    private const HEADER = 44;

    private const MOST_BYTES = 0xFFFFFFFF - 1024;

    /**
     * @param  array<string, mixed>  $which  the number of the `track`, or that of the `sound` among the sound tracks; `stated` the
     *          form of a headerless one
     * @param  int  $samples  of the whole track, each of all channels
     * @param  int  $rate  Hz
     */
    public static function stream(Request $request, string $path, array $which, int $samples, int $rate, int $channels): StreamedResponse
    {
        $frame = 2 * $channels;
        $data = min($samples, intdiv(self::MOST_BYTES, $frame)) * $frame;
        $size = self::HEADER + $data;
        [$from, $until] = self::range((string) $request->headers->get('Range'), $size);
        $header = 'RIFF'.pack('V', $size - 8).'WAVEfmt '.pack('VvvVVvv', 16, 1, $channels, $rate, $rate * $frame, $frame,
            16).'data'.pack('V', $data);
        $first = intdiv(max(0, $from - self::HEADER), $frame);
        $count = max(0, (int) ceil(($until - self::HEADER) / $frame) - $first);
        $process = CoreProcess::prepare('excerpt', $which + ['path' => $path, 'from' => $first, 'count' => $count], brief: true)
            ->setTimeout(null);

        return response()->stream(function () use ($process, $header, $from, $until, $first, $frame): void {
            $reader = new SlowReader;
            $reader->write(substr($header, $from, max(0, $until - $from)));
            $place = self::HEADER + $first * $frame;
            $until <= self::HEADER ? null : $process->start();
            foreach ($until <= self::HEADER ? [] : $process as $type => $part) {
                if ($type !== 'out') {
                    continue;
                }
                $begin = max(0, max($from, self::HEADER) - $place);
                if (! $reader->write(substr($part, $begin, max(0, $until - $place - $begin)))) {
                    $process->stop(0);

                    return;
                }
                $place += strlen($part);
            }
            // Damaged sound may decode to less than was announced; what was promised is filled with silence.
            for ($left = $until - max($place, $from, self::HEADER); $left > 0; $left -= 65536) {
                if (! $reader->write(str_repeat("\0", min($left, 65536)))) {
                    return;
                }
            }
        }, $from === 0 && $until === $size && ! $request->headers->has('Range') ? 200 : 206, [
            'Content-Type' => 'audio/wav', 'Accept-Ranges' => 'bytes', 'Content-Length' => (string) ($until - $from),
            'Cache-Control' => 'private, no-store', 'X-Accel-Buffering' => 'no',
        ] + ($request->headers->has('Range') ? ['Content-Range' => sprintf('bytes %d-%d/%d', $from, $until - 1, $size)] : []));
    }

    /** @return array{int, int} first byte asked for and the first no longer asked for */
    private static function range(string $asked, int $size): array
    {
        if (preg_match('/^bytes=(\d{0,15})-(\d{0,15})$/', $asked, $parts) !== 1 || $parts[1].$parts[2] === '') {
            return [0, $size];
        }
        if ($parts[1] === '') {
            return [max(0, $size - (int) $parts[2]), $size];
        }
        $from = (int) $parts[1];
        abort_if($from >= $size, 416);

        return [$from, $parts[2] === '' ? $size : max($from + 1, min($size, (int) $parts[2] + 1))];
    }
}
