<?php

declare(strict_types=1);

namespace Octavox\Cli;

use Octavox\Core\Analysis\AnalysisFindings;
use Octavox\Core\Analysis\Analyzer;
use Octavox\Core\Analysis\Measurements;
use Octavox\Core\Analysis\ReadingDocument;
use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\CodecNotDecodable;
use Octavox\Core\Codec\Codecs;
use Octavox\Core\Container\Raw\HeaderlessFormat;
use Octavox\Core\Container\StatedAs;
use Octavox\Core\Destination\Change;
use Octavox\Core\Destination\Destinations;
use Octavox\Core\Destination\Fit;
use Octavox\Core\Destination\Rejection;
use Octavox\Core\Failure;
use Octavox\Core\InternalFault;
use Octavox\Core\Make\FitInspector;
use Octavox\Core\Media\LanguageCode;
use Octavox\Core\Media\Track;
use Octavox\Core\Reading\Finding;
use Octavox\Core\Reading\Opener;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Reading\Reading;

/** Prints the facts of sources and what stands in their way. */
final class ReadCommand implements Command
{
    public function __construct(private readonly Arguments $arguments, private readonly Output $output) {}

    /**
     * @throws Failure
     */
    public function run(): int
    {
        if ($this->arguments->paths === []) {
            throw Usage::missing('The path of a file or folder');
        }
        $stated = HeaderlessFormat::parseOptional($this->arguments->text('headerless'));
        $for = $this->arguments->text('for');
        $destination = $for === null ? null : Destinations::find($for, Home::path('destinations'));
        $sources = $leftOut = [];
        $first = null;
        foreach (Files::under($this->arguments->paths, $this->arguments->number('disc-title')) as $file) {
            $path = $file->path;
            if ($file->besides !== null) {
                $leftOut[] = $this->leftOut($path, 'part', $file->besides);

                continue;
            }
            if ($this->output->isClosed()) {
                return Output::PIPE_CLOSED;
            }
            try {
                $reading = Reader::read($path, $file->title ?? $stated);
                $analyses = $this->arguments->has('listen') ? $this->analyze($reading, $file->title ?? $stated) : [];
                $findings = array_merge(...array_map(fn (Track $track): array => isset($analyses[$track->number])
                    ? AnalysisFindings::find($track, $analyses[$track->number]) : [], $reading->sound()));
                $fit = $destination === null ? null : FitInspector::inspect($reading, $destination,
                    $analyses[($reading->sound()[0] ?? null)->number ?? 0] ?? null);
                $sources[] = [...ReadingDocument::write($reading, $analyses, $findings), ...($fit === null ? [] : ['fit' => $fit
                    ->toArray()])];
                $this->output->say(implode("\n", [$this->describe($reading), ...self::levels($analyses),
                    ...array_map(self::finding(...), $findings), ...($fit === null ? [] : self::fit($fit))]));
            } catch (\Throwable $thrown) {
                $failure = $thrown instanceof Failure ? $thrown : InternalFault::of($thrown, $path);
                if ($file->isNoMedia($failure)) {
                    $leftOut[] = $this->leftOut($path, $failure->code(), $failure->getMessage());

                    continue;
                }
                $first ??= $failure;
                $failed ??= $path;
                $sources[] = ['path' => $path,
                    'error' => ['code' => $failure->code(), 'message' => $failure->getMessage(), 'path' => $path]];
                $this->output->say($path."\n  ".$failure->getMessage());
            }
        }
        if (count($sources) === 1 && $first !== null && $leftOut === []) {
            $this->output->error($first, $failed ?? '');

            return 1;
        }
        $this->output->document(['sources' => $sources, 'left_out' => $leftOut]);

        return $first === null ? 0 : 1;
    }

    /** @return array{path: string, code: string, message: string} */
    private function leftOut(string $path, string $code, string $says): array
    {
        $this->output->say($path."\n  left out: ".$says);

        return ['path' => $path, 'code' => $code, 'message' => $says];
    }

    private function describe(Reading $reading): string
    {
        $lines = [sprintf('%s  (%s%s, %s, %s bytes)', $reading->path, $reading->container, $reading->stated === null ? ''
            : ' '.$reading->stated, Output::clock($reading->seconds), number_format($reading->bytes))];
        foreach ($reading->tracks as $track) {
            $lines[] = match (true) {
                $track->sound !== null => sprintf('  %d  sound    %s, %s, %s Hz%s, %s samples', $track->number,
                    CodecModules::describe($track->sound),
                    $track->sound->layout->name(), number_format($track->sound->rate), $track->language === null ? ''
                    : ', '.LanguageCode::name($track->language), number_format($track->timeline->samples())),
                $track->picture !== null => sprintf('  %d  picture  %s, %d × %d, %.3g a second', $track->number, $track->picture->label,
                    $track->picture->width, $track->picture->height, $track->picture->perSecond),
                default => sprintf('  %d  text', $track->number),
            };
        }
        foreach ($reading->findings as $finding) {
            $lines[] = self::finding($finding);
        }

        return implode("\n", $lines);
    }

    /** @return list<string> */
    private static function fit(Fit $fit): array
    {
        $change = match ($fit->change) {
            Change::None => 'accepted as it is',
            Change::Remux => 'accepted once its packets stand in another container, copied untouched',
            Change::Remake => 'accepted once its sound is remade',
            Change::Impossible => 'not accepted, and nothing that can be done here helps',
        };

        return ['  '.$change, ...array_map(fn (Rejection $one): string => '    '.$one->rule->value.': '.$one->says, $fit->violations)];
    }

    private static function finding(Finding $finding): string
    {
        return sprintf('  %s: %s %s', $finding->severity->value, $finding->says(), $finding->remedy());
    }

    /**
     * @return array<int, Measurements> by the track's number; of those that can be decoded
     *
     * @throws CodecNotDecodable
     * @throws Failure
     */
    private function analyze(Reading $reading, ?StatedAs $stated): array
    {
        $source = Opener::open($reading->path, $stated);
        $analyses = [];
        foreach ($source->sound() as $track) {
            if ($track->sound !== null && Codecs::canDecode($track->sound)) {
                $analyses[$track->number] = Analyzer::to($source, $track);
            }
        }

        return $analyses;
    }

    /**
     * @param  array<int, Measurements>  $analyses
     * @return list<string>
     */
    private static function levels(array $analyses): array
    {
        $number = fn (?float $value, string $unit): string => $value === null ? 'silent' : sprintf('%.1f %s', $value, $unit);

        return array_map(function (int $track, Measurements $measured) use ($number): string {
            $figures = $measured->toArray();

            return sprintf('  %d  peak %s, RMS %s, loudness %s, range %s, true peak %s', $track,
                $number($measured->level()->peakDecibels(), 'dBFS'), $number($measured->level()->rmsDecibels(), 'dBFS'),
                $number($measured->loudness->integrated, 'LUFS'), $number($measured->loudness->range, 'LU'),
                $number(is_float($figures['true_peak_db']) ? $figures['true_peak_db'] : null, 'dBFS'));
        }, array_keys($analyses), $analyses);
    }
}
