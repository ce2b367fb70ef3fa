<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Analysis\Analyzer;
use Octavox\Core\Analysis\SilenceCut;
use Octavox\Core\Analysis\SizeTrial;
use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Container\Fidelity;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Decode\TrackMissing;
use Octavox\Core\Failure;
use Octavox\Core\InternalFault;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Track;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Plan\MissingFacts;
use Octavox\Core\Plan\OrderLine;
use Octavox\Core\Plan\OrderPlanner;
use Octavox\Core\Plan\Plan;
use Octavox\Core\Plan\PlannedLine;
use Octavox\Core\Plan\SourceKnowledge;
use Octavox\Core\Reading\BorderFinder;
use Octavox\Core\Reading\OpenedSource;
use Octavox\Core\Reading\Opener;
use Octavox\Core\Sound\InvalidLevel;

/** Plans an order in this process: opens the sources to find what planning wants to know beyond their readings. */
final class SourceInspector
{
    /**
     * @param  array<array-key, OrderLine>  $lines
     * @return array<array-key, PlannedLine> by the keys of the lines; none of them waits
     *
     * @throws InvalidLevel
     */
    public static function plan(array $lines, OutputSpec $spec): array
    {
        $refused = [];
        foreach ($lines as $key => $line) {
            $cover = $line->changes->over($spec)->cover ?? '';
            $lines[$key] = $cover === '' ? $line
                : $line->knowing($line->knowledge->withCover(is_file($cover) ? (int) filesize($cover) : 0));
        }
        do {
            $planned = OrderPlanner::plan($lines, $spec);
            $waiting = array_filter($planned, fn (PlannedLine $line): bool => $line->isWaiting());
            foreach ($waiting as $key => $line) {
                try {
                    $lines[$key] = $lines[$key]->knowing(self::find($lines[$key], $line->wanted));
                } catch (\Throwable $trouble) {
                    $refused[$key] = PlannedLine::refused($trouble instanceof Failure ? $trouble
                        : InternalFault::of($trouble, $lines[$key]->source->path));
                    unset($lines[$key]);
                }
            }
        } while ($waiting !== []);
        $planned += $refused;
        ksort($planned);

        return $planned;
    }

    /**
     * The same with better predictions of sizes, for whoever only wants to know: a few stretches of the sound are compressed for that.
     *
     * @param  array<array-key, OrderLine>  $lines
     * @return array<array-key, PlannedLine>
     *
     * @throws InvalidLevel
     */
    public static function forecast(array $lines, OutputSpec $spec): array
    {
        $first = self::plan($lines, $spec);
        $known = $lines;
        $refused = [];
        foreach ($first as $key => $planned) {
            try {
                foreach (array_filter($planned->plans, self::isPacked(...)) as $plan) {
                    $sound = $plan->onlySound();
                    $known[$key] = $known[$key]->knowing(self::knowingPacked($known[$key], $sound->track,
                        $sound->audio->codec === Codec::Vorbis));
                }
            } catch (\Throwable $bug) {
                // The fault of one file is told of that file.
                $refused[$key] = PlannedLine::refused(InternalFault::of($bug, $known[$key]->source->path));
                unset($known[$key]);
            }
        }
        $planned = $known === $lines ? $first : self::plan($known, $spec) + $refused;
        ksort($planned);

        return $planned;
    }

    /** @throws Failure */
    private static function find(OrderLine $line, MissingFacts $wanted): SourceKnowledge
    {
        $known = $line->knowledge;
        $source = Opener::open($line->source->path, $line->source->stated);
        $borders = array_map(fn ($query) => BorderFinder::find($source, $query), $wanted->borders);
        $analyses = array_map(fn (int $number) => Analyzer::to($source, self::track($source, $number)), $wanted->analyses);
        $silences = array_map(fn (array $cut): string => (string) SilenceCut::parse($cut[1])?->find($source, self::track($source, $cut[0])),
            $wanted->silences);

        return new SourceKnowledge($known->borders + $borders, $known->analyses + $analyses, $known->packed, $known->silences + $silences,
            $known->coverBytes);
    }

    private static function isPacked(Plan $plan): bool
    {
        if ($plan->picture !== null || $plan->isKept()) {
            return false;
        }

        $sound = $plan->sound();

        return Outputs::named($plan->target->container)?->capabilities()->fidelity === Fidelity::Lossless
            || $sound !== null && CodecModules::of($sound->audio->codec)->followsSound();
    }

    private static function knowingPacked(OrderLine $line, int $number, bool $isVorbis): SourceKnowledge
    {
        $known = $line->knowledge;
        try {
            $source = Opener::open($line->source->path, $line->source->stated);
            $track = self::track($source, $number);
            $tried = SizeTrial::run($source, $track, $track->timeline->samples(), $isVorbis);
        } catch (Failure) {
            // Whoever makes it is told; the rule of thumb stands.
            $tried = null;
        }

        return new SourceKnowledge($known->borders, $known->analyses, $known->packed + ($tried === null ? [] : [$number => $tried]),
            $known->silences, $known->coverBytes);
    }

    /** @throws TrackMissing */
    private static function track(OpenedSource $source, int $number): Track
    {
        return $source->track($number) ?? throw TrackMissing::number($source->media->source()->name(), $number);
    }
}
