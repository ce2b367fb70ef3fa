<?php

declare(strict_types=1);

namespace Octavox\Cli;

use Octavox\Core\Analysis\Analyzer;
use Octavox\Core\Analysis\GroupGain;
use Octavox\Core\Analysis\LosslessSize;
use Octavox\Core\Analysis\SilenceCut;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Container\Raw\HeaderlessFormat;
use Octavox\Core\Container\Video\VideoOutputFormat;
use Octavox\Core\Container\Video\VideoOutputs;
use Octavox\Core\Failure;
use Octavox\Core\InternalFault;
use Octavox\Core\Make\Originals;
use Octavox\Core\Make\Result;
use Octavox\Core\Make\WorkerPool;
use Octavox\Core\Make\Workplace;
use Octavox\Core\Make\WouldReplaceSource;
use Octavox\Core\Media\Track;
use Octavox\Core\Name\NamePattern;
use Octavox\Core\Plan\CannotPlan;
use Octavox\Core\Plan\Existing;
use Octavox\Core\Plan\FilmPlanner;
use Octavox\Core\Plan\FilmWish;
use Octavox\Core\Plan\Length;
use Octavox\Core\Plan\NotOffered;
use Octavox\Core\Plan\Plan;
use Octavox\Core\Plan\Planner;
use Octavox\Core\Plan\ShapingWish;
use Octavox\Core\Plan\TrackChoice;
use Octavox\Core\Plan\Wish;
use Octavox\Core\Reading\Opener;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Reading\Reading;
use Octavox\Core\Sound\LevelTarget;

/** Makes results of sources: plans all, then carries the plans out on every processor. */
final class MakeCommand implements Command
{
    public const OPTIONS = ['into', 'format', 'track', 'layout', 'rate', 'bits', 'kbps', 'variable', 'name', 'exists', 'headerless', 'picture', 'sound', 'length', 'labels', 'from', 'until', 'pieces', 'fade-in', 'fade-out', 'level'];

    public const FLAGS = ['json', 'plan', 'each', 'exact', 'together'];

    /** @var list<array<array-key, mixed>> */
    private array $results = [];

    /** @var list<array{path: string, code: string, message: string}> files of folders that are no recordings, and results of before */
    private array $leftOut = [];

    /** Whether what was asked for cannot be had of anything that was there. */
    private bool $misasked = true;

    private bool $failed = false;

    private MadeFiles $made;

    private ?Failure $first = null;

    public function __construct(private readonly Arguments $arguments, private readonly Output $output)
    {
        $this->made = MadeFiles::open();
    }

    public function run(): int
    {
        $folder = $this->arguments->text('into') ?? throw Usage::missing('--into DIR');
        $name = $this->arguments->text('format') ?? throw Usage::missing('--format');
        $film = VideoOutputs::named($name);
        $format = $film === null ? $this->sound('--format', $name) : $this->sound('--sound', $this->arguments->text('sound')) ?? $film->encodes();
        if ($format === null || $this->arguments->choice('picture', ['keep', 'drop']) === 'keep' && $film === null) {
            throw Usage::value('--format', $name, 'mov, mp4, mkv, webm where the picture is kept');
        }
        $wish = $this->wish($format, $folder);
        if ($film !== null && $wish->length !== Length::Sound) {
            throw Usage::value('--length', $wish->length->value, 'sound where the picture is kept: each sound track stays as it is beside it');
        }
        if ($this->arguments->paths === []) {
            throw Usage::missing('The path of a file or folder');
        }
        $files = $this->files();
        $originals = array_map(fn (FoundFile $file): string => $file->path, $files);
        $plans = $this->plans($wish, $film, $files, Originals::of($originals));
        if ($this->arguments->has('plan')) {
            foreach ($plans as $plan) {
                $this->results[] = Result::planned($plan);
                $this->output->say(sprintf("%s → %s\n  %s: %s; %s samples, about %s bytes", $plan->source, $plan->path(), $plan->isKept() ? 'kept' : 'remade', implode(', ', [...$plan->steps, ...$plan->warnings]), number_format($plan->samples), number_format($plan->predictedBytes)));
            }
        } else {
            // Told as they end, listed in the order in which they were planned.
            $before = count($this->results);
            $order = [];
            WorkerPool::ofThisMachine()->carryOut($plans, $originals, function (int $index, array|Failure $result) use ($plans, &$order): void {
                $order[] = $index;
                $result instanceof Failure ? $this->fail($plans[$index]->source, $result) : $this->done($result);
            });
            $made = array_combine($order, array_slice($this->results, $before));
            ksort($made);
            $this->results = [...array_slice($this->results, 0, $before), ...array_values($made)];
        }
        $document = ['results' => $this->results, 'left_out' => $this->leftOut];
        if (count($this->results) === 1 && $this->first !== null) {
            $this->output->document([...$document, 'error' => ['code' => $this->first->code(), 'message' => $this->first->getMessage(), 'path' => $this->results[0]['source']]]);
        } else {
            $this->output->document($document);
        }

        return $this->failed ? ($this->misasked ? 2 : 1) : 0;
    }

    /** @throws Usage */
    private function sound(string $option, ?string $name): ?OutputFormat
    {
        return $name === null ? null : Outputs::named($name) ?? throw Usage::value($option, $name, implode(', ', [...array_map(fn (OutputFormat $format): string => $format->name(), Outputs::all()), ...array_map(fn (VideoOutputFormat $film): string => $film->name(), VideoOutputs::all())]));
    }

    private function wish(OutputFormat $format, string $folder): Wish
    {
        $setting = match (true) {
            $this->arguments->number('variable') !== null => RateControl::variable((int) $this->arguments->number('variable')),
            $this->arguments->number('kbps') !== null => RateControl::constant((int) $this->arguments->number('kbps')),
            default => RateControl::none(),
        };
        $track = $this->arguments->text('track');

        return new Wish(
            $format,
            $setting,
            rtrim($folder, '/') === '' ? '/' : rtrim($folder, '/'),
            $this->arguments->number('rate'),
            $this->arguments->number('bits'),
            null,
            null,
            new NamePattern($this->arguments->text('name') ?? ($track === 'all' || str_contains((string) $track, ',') ? '{stem} {track}' : '{stem}')),
            Existing::from($this->arguments->choice('exists', ['number', 'replace', 'skip']) ?? 'number'),
            Length::from($this->arguments->choice('length', ['sound', 'picture']) ?? 'sound'),
            $this->shaping(),
        );
    }

    private function shaping(): ShapingWish
    {
        $from = $this->arguments->text('from');
        $until = $this->arguments->text('until');
        $pieces = $this->arguments->text('pieces') ?? '';
        if ($pieces !== '' && ($from !== null || $until !== null)) {
            throw Usage::value('--pieces', $pieces, 'left out where --from and --until say what is wanted');
        }

        return new ShapingWish(
            $this->arguments->text('layout') ?? '',
            explode(',', $this->arguments->text('labels') ?? ''),
            $from === null && $until === null ? $pieces : ($from ?? '0').'-'.($until ?? 'end'),
            $this->arguments->has('each'),
            $this->arguments->text('fade-in') ?? '',
            $this->arguments->text('fade-out') ?? '',
            $this->arguments->text('level') ?? '',
            $this->arguments->has('exact'),
        );
    }

    /** @return list<FoundFile> without what was made here before */
    private function files(): array
    {
        $files = [];
        foreach (Files::under($this->arguments->paths) as $file) {
            if (! $file->named && $this->made->hold($file->path)) {
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
     */
    private function plans(Wish $wish, ?VideoOutputFormat $film, array $files, Originals $originals): array
    {
        $plans = [];
        $taken = [];
        $stated = HeaderlessFormat::parseOptional($this->arguments->text('headerless'));
        if ($this->arguments->has('together')) {
            $wish = $wish->shapedBy($wish->shaping->withLevel((string) $this->together($wish, $files, $stated)));
        }
        foreach ($files as $file) {
            try {
                $source = Reader::read($file->path, $stated);
                foreach ($film === null ? $this->soundPlans($source, $wish) : [$this->filmPlan($source, $wish, $film)] as $plan) {
                    // Two sources of one name in a batch never overwrite each other.
                    for ($number = 1; isset($taken[mb_strtolower(Workplace::numbered($plan->name, $number))]); $number++);
                    $plan = $plan->named(Workplace::numbered($plan->name, $number));
                    $taken[mb_strtolower($plan->name)] = true;
                    if ($plan->existing === Existing::Replace && $originals->hold($plan->path())) {
                        throw WouldReplaceSource::at($plan->path());
                    }
                    $plans[] = $this->arguments->has('plan') ? self::foretold($plan) : $plan;
                }
            } catch (\Throwable $thrown) {
                $failure = $thrown instanceof Failure ? $thrown : InternalFault::of($thrown, $file->path);
                $file->isNoMedia($failure) ? $this->leaveOut($file->path, $failure->code(), $failure->getMessage()) : $this->fail($file->path, $failure);
            }
        }
        $this->misasked = $this->misasked && $plans === [];

        return $plans;
    }

    /** What somebody wants to know before anything is made may take a moment longer: a few stretches are compressed. */
    private static function foretold(Plan $plan): Plan
    {
        if (! LosslessSize::concerns($plan)) {
            return $plan;
        }
        $source = Opener::open($plan->source, $plan->stated);
        $track = $source->track($plan->track);

        return $track === null ? $plan : LosslessSize::foretell($plan, LosslessSize::bits($source, $track, $track->timeline->samples()));
    }

    private function leaveOut(string $path, string $code, string $says): void
    {
        $this->leftOut[] = ['path' => $path, 'code' => $code, 'message' => $says];
        $this->output->say(sprintf('left out  %s  %s', $path, $says));
    }

    /** @return list<Plan> */
    private function soundPlans(Reading $source, Wish $wish): array
    {
        return array_merge(...array_map(fn (Wish $one): array => Planner::plans($source, self::withoutSilences($source, $one)), $this->tracks($source, $wish)));
    }

    /**
     * One gain for all, from listening to all of them.
     *
     * @param  list<FoundFile>  $files
     */
    private function together(Wish $wish, array $files, ?HeaderlessFormat $stated): LevelTarget
    {
        $target = LevelTarget::parse($wish->shaping->level);
        $heard = [];
        foreach ($files as $file) {
            try {
                $source = Reader::read($file->path, $stated);
                foreach ($this->tracks($source, $wish) as $one) {
                    $opened = Opener::open($file->path, $stated);
                    $track = $opened->track($one->track ?? $source->sound()[0]->number ?? 0);
                    $heard = $track === null ? $heard : [...$heard, Analyzer::to($opened, $track)];
                }
            } catch (\Throwable) {
                // What cannot be read is told when it is planned.
            }
        }

        return GroupGain::of($target, $heard);
    }

    /** Where silences are to be left out, they are looked for first. */
    private static function withoutSilences(Reading $source, Wish $wish): Wish
    {
        $cut = SilenceCut::parse($wish->shaping->pieces);
        if ($cut === null) {
            return $wish;
        }
        $opened = Opener::open($source->path, $source->stated);
        $track = $opened->track($wish->track ?? $source->sound()[0]->number ?? 0) ?? throw CannotPlan::noSound($source->path);

        return $wish->shapedBy($wish->shaping->withPieces($cut->of($opened, $track)));
    }

    private function filmPlan(Reading $source, Wish $wish, VideoOutputFormat $film): Plan
    {
        $wishes = $this->arguments->text('track') === null || $source->sound() === [] ? [] : $this->tracks($source, $wish);
        $tracks = $wishes === [] ? null : array_map(fn (Wish $one): int => (int) $one->track, $wishes);
        $joined = array_filter(array_combine($tracks ?? [], array_map(fn (Wish $one): array => $one->joined, $wishes)), fn (array $others): bool => $others !== []);
        $sound = $this->arguments->text('sound') === null ? null : $wish->format;

        return FilmPlanner::plan($source, new FilmWish($film, $sound, $wish->setting, $wish->folder, $wish->rate, $wish->bits, null, $tracks, $wish->name, $wish->existing, $wish->shaping, $joined));
    }

    /** @return list<Wish> one for each track that is wanted */
    private function tracks(Reading $source, Wish $wish): array
    {
        $wanted = $this->arguments->text('track');
        if ($wanted === null || $source->sound() === []) {
            return [$wish];
        }
        $wishes = [];
        foreach (explode(',', $wanted) as $one) {
            if (preg_match('/^\d+(\+\d+)+$/', $one) === 1) {
                $wishes[] = $wish->ofJoined(array_map(intval(...), explode('+', $one)));

                continue;
            }
            $numbers = $one === 'all' ? array_map(fn (Track $track): int => $track->number, $source->sound()) : TrackChoice::of($source, $one);
            array_push($wishes, ...array_map($wish->ofTrack(...), $numbers));
        }

        return $wishes;
    }

    /** @param  array<array-key, mixed>  $delivery */
    private function done(array $delivery): void
    {
        $this->results[] = $delivery;
        if (($delivery['state'] ?? '') === 'done') {
            $this->made->add(self::text($delivery, 'path'));
        }
        $receipt = is_array($delivery['receipt'] ?? null) ? $delivery['receipt'] : [];
        $this->output->say(sprintf('%s  %s  %s', self::text($delivery, 'state'), self::text($delivery, 'path'), $receipt === [] ? 'it was there already' : sprintf('%s, %s samples, %s bytes, %s s', self::text($delivery, 'action'), self::text($receipt, 'samples'), self::text($receipt, 'bytes'), self::text($delivery, 'took'))));
    }

    private function fail(string $path, Failure $failure): void
    {
        $this->failed = true;
        $this->misasked = $this->misasked && $failure instanceof NotOffered;
        $this->first ??= $failure;
        $this->results[] = ['source' => $path, 'path' => null, 'state' => 'failed', 'error' => ['code' => $failure->code(), 'message' => $failure->getMessage(), 'path' => $path]];
        $this->output->say(sprintf("failed  %s\n  %s", $path, $failure->getMessage()));
    }

    /** @param  array<array-key, mixed>  $values */
    private static function text(array $values, string $name): string
    {
        $value = $values[$name] ?? '';

        return is_scalar($value) ? (string) $value : '';
    }
}
