<?php

declare(strict_types=1);

namespace Tests\Support;

use Octavox\Core\Testing\CodeFacts;

/** The rules of the application and the command line, each a method that names the files which break it. */
final readonly class ApplicationRules
{
    /** What opens media, decodes, plans from media or makes: for processes of their own, never for the one that answers a page. */
    private const ENGINE =
        '/^Octavox\\\\Core\\\\(Codec\\\\(Codecs$|Native\\\\)|Sound\\\\Native\\\\|Decode\\\\|Testing\\\\|Container\\\\(Containers|Demuxer)$'
        .'|Container\\\\(?!Raw\\\\HeaderlessFormat$|Video\\\\VideoOutput)[A-Za-z0-9]+\\\\'
        .'|Disc\\\\(?!StatedTitle$|DiscFolder$)|Reading\\\\(Opener|Reader|BorderFinder|OpenedSource)$|Analysis\\\\(Analyzer|ParallelAnalysis|SizeTrial|Excerpt)$'
        .'|Make\\\\(Maker|SourceInspector|Pipeline\\\\.*)$)/';

    /** Functions that begin processes, and who may call them. */
    private const PROCESS = ['proc_open', 'popen', 'exec', 'shell_exec', 'system', 'passthru', 'pcntl_fork', 'pcntl_exec'];

    private const PRINTED = ['var_dump', 'print_r', 'dd', 'dump', 'ray', 'error_log', 'eval', 'die', 'unserialize'];

    private const LINES_OF_AN_ACTION = 35;

    /** @param  list<CodeFacts>  $files  of the application and the command line, paths from the root of the project */
    public function __construct(private array $files) {}

    /** @return list<string> the names of all rules */
    public static function all(): array
    {
        $public = array_filter((new \ReflectionClass(self::class))->getMethods(\ReflectionMethod::IS_PUBLIC),
            fn (\ReflectionMethod $method): bool => ! $method->isStatic() && ! $method->isConstructor());

        return array_values(array_map(fn (\ReflectionMethod $method): string => $method->getName(), $public));
    }

    /** @return list<string> */
    public function theWebParsesNoMedia(): array
    {
        return $this->where('app/', fn (CodeFacts $file): array => array_filter($file->names(),
            fn (string $name): bool => preg_match(self::ENGINE, $name) === 1));
    }

    /** @return list<string> */
    public function nobodyCallsLibraries(): array
    {
        return $this->where('', fn (CodeFacts $file): array => array_filter($file->names(),
            fn (string $name): bool => $name === 'FFI' || str_starts_with($name, 'FFI\\') || str_contains($name, '\\Native\\')));
    }

    /** @return list<string> */
    public function controllersAreThin(): array
    {
        return $this->where('app/Http/Controllers/', fn (CodeFacts $file): array => [
            ...array_filter($file->names(), fn (string $name): bool => $name === 'Illuminate\Support\Facades\DB'
                || preg_match('/^Octavox\\\\Core\\\\(Make|Codec|Container|Plan|Order|Parallel)\\\\/', $name) === 1),
            ...array_map(fn (string $method): string => "$method is long", $file->longMethods(self::LINES_OF_AN_ACTION)),
        ]);
    }

    /** @return list<string> */
    public function onlyProcessesBeginProcesses(): array
    {
        return $this->where('', fn (CodeFacts $file): array => str_starts_with($file->path, 'app/Processes/') ? []
            : array_intersect($file->functions(), self::PROCESS));
    }

    /** @return list<string> */
    public function planningIsOutsideOfTransactions(): array
    {
        return $this->where('app/',
            fn (CodeFacts $file): array => array_filter($file->within('Illuminate\Support\Facades\DB', 'transaction'),
                fn (string $what): bool => preg_match('/(^|\\\\)(OrderPlanner|Planner|PlanOrder)$|^\$this->plans$/', $what) === 1));
    }

    /** @return list<string> */
    public function everyJobHasFailed(): array
    {
        return $this->where('app/Jobs/', fn (CodeFacts $file): array => in_array('failed', $file->publicMethods(), true) ? []
            : ['no failed()']);
    }

    /** @return list<string> */
    public function nothingIsDumped(): array
    {
        return $this->where('', fn (CodeFacts $file): array => array_intersect([...$file->functions(), ...$file->output()],
            [...self::PRINTED, ...(str_starts_with($file->path, 'app/') ? ['print', 'exit', 'text'] : [])]));
    }

    /** @return list<string> */
    public function nothingGoesToTheVoid(): array
    {
        return $this->where('', fn (CodeFacts $file): array => str_contains($file->code, "'/dev/null', '")
            || str_contains($file->code, '2>/dev/null')
            ? ['/dev/null'] : []);
    }

    /** @return list<string> */
    public function theCodeIsInOrder(): array
    {
        return $this->where('', fn (CodeFacts $file): array => [
            ...($file->isStrict() ? [] : ['no strict types']), ...$file->openClasses(), ...$file->manyParameters(7),
            ...array_map(strval(...), $file->longLines(140)), ...$file->untoldThrows(),
        ]);
    }

    /**
     * @param  callable(CodeFacts): array<array-key, string>  $breaches
     * @return list<string> path and what breaks the rule there
     */
    private function where(string $below, callable $breaches): array
    {
        $found = [];
        foreach ($this->files as $file) {
            foreach (str_starts_with($file->path, $below) ? $breaches($file) : [] as $breach) {
                $found[] = $file->path.': '.$breach;
            }
        }

        return $found;
    }
}
