<?php

declare(strict_types=1);

namespace Tests\Support;

use Octavox\Core\Testing\CodeFacts;

/** Rules of the application and the command line that no analyser knows, each a method that names the files which break it. */
final readonly class ApplicationRules
{
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
    public function controllersAreShort(): array
    {
        return $this->where('app/', fn (CodeFacts $file): array => str_ends_with($file->path, 'Controller.php')
            ? array_map(fn (string $method): string => "$method is long", $file->longMethods(self::LINES_OF_AN_ACTION)) : []);
    }

    /** @return list<string> */
    public function planningIsOutsideOfTransactions(): array
    {
        return $this->where('app/',
            fn (CodeFacts $file): array => array_filter($file->within('Illuminate\Support\Facades\DB', 'transaction'),
                fn (string $what): bool => preg_match('/(^|\\\\)(OrderPlanner|Planner|PlanOrder|OrderSheet|NameClashes)$|^\$this->plans$/', $what) === 1));
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
            ...$file->openClasses(), ...$file->manyParameters(7), ...array_map(strval(...), $file->longLines(140)),
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
