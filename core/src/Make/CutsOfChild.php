<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Codec\PacketTrimmers;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\Raw\HeaderlessFormat;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Parallel\CoreScript;
use Octavox\Core\Plan\CutFinder;
use Octavox\Core\Plan\KeptCut;

/** Has the packets around the marks looked for in a process of its own, which may call native libraries and may die of a damaged file. */
final class CutsOfChild implements CutFinder
{
    public function around(string $path, ?HeaderlessFormat $stated, int $number, AudioFormat $audio, OutputFormat $format, int $from, int $until): ?KeptCut
    {
        if (PacketTrimmers::of($audio->codec) === null) {
            return null;
        }
        $wish = ['path' => $path, 'track' => $number, 'stated' => $stated === null ? null : (string) $stated, 'format' => $format->name(), 'from' => $from, 'until' => $until];
        [$process, $output] = CoreScript::begin('borders', $wish, brief: true) ?? throw ChildDied::ended($path, 'no process could be started');
        $answer = json_decode((string) stream_get_contents($output), true);
        fclose($output);
        proc_close($process);
        if (! is_array($answer)) {
            throw ChildDied::ended($path, 'no answer');
        }
        if (is_array($answer['error'] ?? null)) {
            $text = fn (string $key): string => is_string($answer['error'][$key] ?? null) ? $answer['error'][$key] : '';
            throw Reported::from($text('code'), $text('message'), $path);
        }

        return is_array($answer['cut'] ?? null) ? KeptCut::fromArray($answer['cut']) : null;
    }
}
