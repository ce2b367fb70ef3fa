<?php

declare(strict_types=1);

namespace Octavox\Core\Analysis;

use Octavox\Core\Bytes\FileSink;
use Octavox\Core\Bytes\FileUnwritable;
use Octavox\Core\Codec\CodecNotDecodable;
use Octavox\Core\Failure;
use Octavox\Core\Media\NoProgress;
use Octavox\Core\Media\Progress;
use Octavox\Core\Media\Track;
use Octavox\Core\Parallel\ForkedTask;
use Octavox\Core\Reading\OpenedSource;
use Octavox\Core\Reading\Opener;

/** Analyses a whole track and writes its waveform; of a long one a second processor hears the later half at the same time. */
final class ParallelAnalysis
{
    /**
     * @param  string  $waveform  path of a file that does not exist yet
     *
     * @throws \Octavox\Core\Failure
     */
    public static function run(OpenedSource $source, Track $track, string $waveform, Progress $progress = new NoProgress): Measurements
    {
        $sink = FileSink::create($waveform);
        $analyzer = Analyzer::of($source, $track, $sink);
        $middle = Analyzer::middle($source, $track);
        $task = $middle === null ? null
            : ForkedTask::begin(fn (): array => ['part' => base64_encode(self::later($source, $track, $waveform, $middle)->packed())]);
        $analyzer->hear($source, $track, 0, $task === null ? PHP_INT_MAX : (int) $middle, $progress);
        if ($task !== null) {
            $said = $task->result(fn () => null)['part'] ?? null;
            $later = is_string($said) ? PartialAnalysis::unpacked((string) base64_decode($said, true)) : null;
            $later === null ? $analyzer->hear($source, $track, (int) $middle, PHP_INT_MAX, $progress) : $analyzer->join($later);
        }
        $measured = $analyzer->finish();
        $sink->close();

        return $measured->withPacked(SizeTrial::run($source, $track, $measured->samples));
    }

    /**
     * @throws CodecNotDecodable
     * @throws Failure
     * @throws FileUnwritable
     */
    private static function later(OpenedSource $source, Track $track, string $waveform, int $from): PartialAnalysis
    {
        // Opened anew: two processes would share the place in an open file.
        $own = Opener::open($source->media->source()->name(), $source->stated);
        $same = $own->track($track->number) ?? $track;
        $analyzer = Analyzer::of($own, $same, FileSink::within($waveform), $from);
        $analyzer->hear($own, $same, $from, PHP_INT_MAX);

        return $analyzer->part();
    }
}
