<?php

declare(strict_types=1);

namespace Octavox\Cli;

use Octavox\Core\Container\Raw\HeaderlessFormat;
use Octavox\Core\Destination\Destination;
use Octavox\Core\Destination\Destinations;
use Octavox\Core\Destination\NotAccepted;
use Octavox\Core\Failure;
use Octavox\Core\InternalFault;
use Octavox\Core\Make\FitInspector;
use Octavox\Core\Make\Originals;
use Octavox\Core\Make\PlacedText;
use Octavox\Core\Make\ReplacedFiles;
use Octavox\Core\Make\Result;
use Octavox\Core\Make\SourceInspector;
use Octavox\Core\Make\WorkerPool;
use Octavox\Core\Make\WouldReplaceSource;
use Octavox\Core\Order\IfExists;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Plan\DiscSheet;
use Octavox\Core\Plan\OrderLine;
use Octavox\Core\Plan\Plan;
use Octavox\Core\Plan\PlanDocument;
use Octavox\Core\Plan\PlanWords;
use Octavox\Core\Plan\SourceLabel;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Reading\Reading;
use Octavox\Core\Sound\InvalidLevel;

/** Makes results of sources: plans all, then carries the plans out on every processor. */
final class MakeCommand implements Command
{
    public const OPTIONS = [...SpecOptions::OPTIONS, 'headerless', 'for', 'tags', 'disc-title', 'disc-sheet'];

    public const FLAGS = [...SpecOptions::FLAGS, 'json', 'plan', 'dry-run'];

    /** What a destination decides, and nobody else beside it. */
    private const DECIDED = ['container', 'picture', 'length', 'tracks', 'codec', 'rate_control', 'rate', 'bit_depth', 'layout',
        'labels', 'pieces',
        'separate', 'exact', 'fade_in', 'fade_out', 'level', 'together', 'stereo', 'checksums', 'compression', 'dither', 'de_emphasis'];

    /** @var list<array<string, mixed>> */
    private array $results = [];

    /** @var list<array{path: string, code: string, message: string}> files of folders that are no recordings, and results of before */
    private array $leftOut = [];

    /** Whether what was asked for cannot be had of anything that was there. */
    private bool $misasked = true;

    private bool $failed = false;

    private MadeFiles $made;

    private ?Failure $first = null;

    private ?Destination $destination = null;

    private TagList $tags;

    private Interruption $interruption;

    /**
     * @param  ?\Closure(FoundFile): bool  $only  of the files that there are those that are meant; null means all
     * @param  ?\Closure(string): void  $settled  told the path of each file once all that can be made of it is made
     */
    public function __construct(private readonly Arguments $arguments, private readonly Output $output,
        private readonly ?\Closure $only = null, ?Interruption $interruption = null, private readonly ?\Closure $settled = null)
    {
        $this->made = MadeFiles::open();
        $this->interruption = $interruption ?? Interruption::awaited();
    }

    /** @throws Failure */
    public function run(): int
    {
        $this->output->document($this->make());

        return $this->interruption->isWanted() ? $this->interruption->status() : $this->status();
    }

    /** Exit status of what was made, as if nobody had stopped it. */
    public function status(): int
    {
        return $this->failed ? ($this->misasked ? 2 : 1) : 0;
    }

    /**
     * @return array<string, mixed> what was made, and what was left out; where somebody stopped it, as much as there is
     *
     * @throws Failure
     */
    public function make(): array
    {
        $spec = (new SpecOptions($this->arguments))->spec();
        if ($spec->place === null) {
            throw Usage::missing('--into DIR or --beside');
        }
        $for = $this->arguments->text('for');
        $this->destination = $for === null ? null : Destinations::find($for, Home::path('destinations'));
        if ($spec->container === null && $this->destination === null) {
            throw Usage::missing('--format, --recipe or --for');
        }
        if ($this->destination !== null && array_intersect($spec->said(), self::DECIDED) !== []) {
            throw Usage::apart('--for', 'it decides what is made; where it lies, what it is called and what it says of itself go with it');
        }
        $tags = $this->arguments->text('tags');
        $this->tags = $tags === null ? TagList::none() : TagList::read($tags);
        if ($this->arguments->paths === []) {
            throw Usage::missing('The path of a file or folder');
        }
        $files = $this->files();
        $originals = array_map(fn (FoundFile $file): string => $file->path, $files);
        $protected = Originals::of($originals);
        $plans = $this->plans($spec, $files, $protected);
        $sheet = $this->arguments->text('disc-sheet');
        if ($sheet !== null && $plans !== []) {
            DiscSheet::check($plans, basename($sheet));
        }
        if ($this->isPlanned()) {
            array_map($this->tell(...), $plans);
        } else {
            $this->carryOut($plans, $originals);
            $sheet = $sheet === null ? null : $this->writeSheet($plans, basename($sheet), $spec->ifExists ?? IfExists::Number, $protected);
            $this->settle(array_diff($this->interruption->isWanted() ? [] : $originals,
                array_map(fn (Plan $plan): string => $plan->source->path,
                    $plans)));
        }
        $document = ['results' => $this->results, 'left_out' => $this->leftOut];
        if ($this->interruption->isWanted()) {
            $this->output->say('stopped; what is done stays, and nothing half made was left');

            return $document + ['stopped' => true];
        }
        if ($sheet !== null && ! $this->isPlanned()) {
            $document['sheet'] = $sheet;
        }
        if (count($this->results) === 1 && $this->first !== null) {
            $document['error'] = ['code' => $this->first->code(), 'message' => $this->first->getMessage(),
                'path' => $this->results[0]['source']];
        }

        return $document;
    }

    /** Whether it is only to be said what would be made. */
    private function isPlanned(): bool
    {
        return $this->arguments->has('plan') || $this->arguments->has('dry-run');
    }

    /**
     * @return list<FoundFile> without what was made here before
     *
     * @throws Usage
     */
    private function files(): array
    {
        $files = [];
        foreach (Files::under($this->arguments->paths, $this->arguments->number('disc-title')) as $file) {
            if ($this->only !== null && ! ($this->only)($file)) {
                continue;
            }
            if ($file->besides !== null) {
                $this->leaveOut($file->path, 'part', $file->besides);
            } elseif (! $file->named && $this->made->hold($file->path)) {
                $this->leaveOut($file->path, 'own-result', 'It was made here before; name it to use it as a source.');
            } else {
                $files[] = $file;
            }
        }

        return $files;
    }

    /**
     * @param  list<FoundFile>  $files
     * @return list<Plan>
     *
     * @throws Failure
     */
    private function plans(OutputSpec $spec, array $files, Originals $originals): array
    {
        $lines = $failures = $plans = [];
        $stated = HeaderlessFormat::parseOptional($this->arguments->text('headerless'));
        foreach ($files as $index => $file) {
            if ($this->interruption->isWanted()) {
                return [];
            }
            try {
                $line = $this->line(Reader::read($file->path, $file->title ?? $stated), $file->label(), $spec);
                $line === null ? $this->leaveOut($file->path, 'right-already', 'It is accepted as it is.') : $lines[$index] = $line;
            } catch (\Throwable $thrown) {
                $failures[$index] = $thrown instanceof Failure ? $thrown : InternalFault::of($thrown, $file->path);
            }
        }
        $planned = $this->isPlanned() ? SourceInspector::forecast($lines, $spec) : SourceInspector::plan($lines, $spec);
        foreach ($files as $index => $file) {
            $failure = $failures[$index] ?? ($planned[$index] ?? null)?->refusal;
            if ($failure !== null) {
                $file->isNoMedia($failure) ? $this->leaveOut($file->path, $failure->code(), $failure->getMessage())
                    : $this->fail($file->path, $failure);
            } elseif (isset($planned[$index]) && $planned[$index]->isRight()) {
                $this->leaveOut($file->path, 'right-already', 'It is already what was asked for.');
            }
            foreach ($planned[$index]->plans ?? [] as $plan) {
                if ($plan->target->ifExists === IfExists::Replace && $originals->hold($plan->path())) {
                    $this->fail($file->path, WouldReplaceSource::at($plan->path()));
                } else {
                    $plans[] = $plan;
                }
            }
        }
        $this->misasked = $this->misasked && $plans === [];

        return $plans;
    }

    /**
     * What is asked of one source; for a destination, the least that makes it acceptable. Null where it is accepted as it is and nothing
     * that can be made is the same.
     *
     * @throws NotAccepted where nothing makes it acceptable
     * @throws Failure
     */
    private function line(Reading $reading, SourceLabel $label, OutputSpec $spec): ?OrderLine
    {
        $own = new OutputSpec(tags: $this->tags->for($reading->path));
        if ($this->destination === null) {
            return new OrderLine($reading, $own, label: $label);
        }
        $asked = $own->over($spec);
        $fit = FitInspector::inspect($reading, $this->destination, asked: $asked);
        if ($fit->spec !== null) {
            // A name that had to be another one counts more than the one that was asked for.
            return new OrderLine($reading, $asked->withName($fit->spec->name ?? $asked->name)->over($fit->spec), label: $label);
        }

        return $fit->isAccepted() ? null : throw NotAccepted::by($this->destination, $fit, $reading->path);
    }

    /**
     * @param  list<Plan>  $plans
     * @param  list<string>  $originals  paths of all sources
     *
     * @throws Failure
     */
    private function carryOut(array $plans, array $originals): void
    {
        // Told as they end, listed in the order in which they were planned.
        $before = count($this->results);
        $order = [];
        $left = array_count_values(array_map(fn (Plan $plan): string => $plan->source->path, $plans));
        $made = 0.0;
        $line = ProgressLine::on(! $this->arguments->has('json'), count($plans),
            array_sum(array_map(fn (Plan $plan): float => $plan->seconds(), $plans)));
        WorkerPool::ofThisMachine([Home::path('bin')])
            ->carryOut($plans, $originals,
                function (int $index, Result|Failure $result) use ($plans, &$order, &$made, &$left, $line): void {
                    $order[] = $index;
                    $made += $plans[$index]->seconds();
                    $line->clear();
                    $result instanceof Failure ? $this->fail($plans[$index]->source->path, $result) : $this->done($result);
                    $path = $plans[$index]->source->path;
                    --$left[$path] === 0 && $this->settle([$path]);
                }, function (array $working) use ($plans, &$order, &$made, $line): void {
                    $line->show(count($order),
                        $made + array_sum(array_map(fn (int $index, int $done): float => $done / $plans[$index]->lengthRate(),
                            array_keys($working), $working)));
                }, fn (): bool => ! $this->interruption->isWanted());
        $line->clear();
        $made = array_combine($order, array_slice($this->results, $before));
        ksort($made);
        $this->results = [...array_slice($this->results, 0, $before), ...array_values($made)];
    }

    /**
     * The sheet of an audio disc beside what was made for one, where all of it was.
     *
     * @param  list<Plan>  $plans
     * @return ?string its path; null where none was written
     *
     * @throws Failure
     */
    private function writeSheet(array $plans, string $name, IfExists $ifExists, Originals $protected): ?string
    {
        $made = array_values(array_filter(array_map(fn (array $one): string => is_string($one['path'] ?? null) ? $one['path'] : '',
            $this->results), fn (string $path): bool => $path !== '' && is_file($path)));
        if ($this->failed || count($made) !== count($plans) || $made === []) {
            return null;
        }
        $path = PlacedText::write(DiscSheet::text($plans, array_map(basename(...), $made)), dirname($made[0]), $name,
            $ifExists, $protected);
        $path === null || $this->output->say('sheet  '.$path);

        return $path;
    }

    /** @param  array<array-key, string>  $paths */
    private function settle(array $paths): void
    {
        if ($this->settled !== null) {
            array_map($this->settled, $paths);
        }
    }

    /** @return list<string> what becomes of a file whose place a result takes */
    private static function replaced(Plan $plan): array
    {
        $isReplaced = $plan->target->ifExists === IfExists::Replace && is_file($plan->path());

        return ! $isReplaced ? [] : [ReplacedFiles::on([Home::path('bin')], $plan->target->folder) === null
            ? 'It takes the place of the file of this name for good: there is no bin on this drive.'
            : 'The file of this name goes into the bin.'];
    }

    /** @throws InvalidLevel */
    private function tell(Plan $plan): void
    {
        $this->results[] = [...PlanDocument::write($plan), 'replaces' => self::replaced($plan)[0] ?? null, 'plan' => $plan->toArray()];
        $this->output->say(sprintf(
            "%s → %s\n  %s: %s; %s samples, about %s bytes%s", $plan->source->path, $plan->path(), $plan->isKept() ? 'kept' : 'remade',
            implode(', ', PlanWords::steps($plan)), number_format($plan->length()), number_format($plan->target->predictedBytes),
            implode('', array_map(fn (string $warning): string => "\n  note: ".$warning, [...PlanWords::warnings($plan),
                ...self::replaced($plan)])),
        ));
    }

    private function leaveOut(string $path, string $code, string $says): void
    {
        $this->leftOut[] = ['path' => $path, 'code' => $code, 'message' => $says];
        $this->output->say(sprintf('left out  %s  %s', $path, $says));
    }

    /** @throws InvalidLevel */
    private function done(Result $result): void
    {
        $this->results[] = MakeDocument::made($result);
        if ($result->receipt === null) {
            $this->output->say(sprintf('skipped  %s  it was there already', $result->path));

            return;
        }
        $this->made->add($result->path);
        $this->output->say(sprintf(
            'done  %s  %s, %d samples, %d bytes, %.3f s', $result->path, $result->plan->isKept() ? 'kept' : 'remade',
            $result->receipt->samples, $result->receipt->bytes, $result->took,
        ));
    }

    private function fail(string $path, Failure $failure): void
    {
        $this->failed = true;
        $this->misasked = $this->misasked && $failure->code() === 'not-offered';
        $this->first ??= $failure;
        $this->results[] = MakeDocument::failed($path, $failure);
        $this->output->say(sprintf("failed  %s\n  %s", $path, $failure->getMessage()));
    }
}
