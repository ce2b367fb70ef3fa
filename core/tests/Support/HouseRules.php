<?php

declare(strict_types=1);

namespace Octavox\Core\Tests\Support;

use Octavox\Core\Failure;
use Octavox\Core\Testing\CodeFacts;

/** Rules of the core that no analyser knows, each a method that names the files which break it. */
final readonly class HouseRules
{
    private const NAMESPACE = 'Octavox\\Core\\';

    /** @param  list<CodeFacts>  $files  of the core's sources */
    public function __construct(private array $files) {}

    /** @return list<string> the names of all rules */
    public static function all(): array
    {
        $public = array_filter((new \ReflectionClass(self::class))->getMethods(\ReflectionMethod::IS_PUBLIC),
            fn (\ReflectionMethod $method): bool => ! $method->isStatic());

        return array_values(array_diff(array_map(fn (\ReflectionMethod $method): string => $method->getName(), $public), ['__construct']));
    }

    /** @return list<string> */
    public function onlyMakersAndAnalysesCreateSinks(): array
    {
        return $this->where(fn (CodeFacts $file): array => in_array($file->room(), ['Bytes', 'Make', 'Analysis'], true) ? [] : array_filter(
            $file->staticCalls(), fn (string $call): bool => str_starts_with($call, self::NAMESPACE.'Bytes\\FileSink::'),
        ));
    }

    /** @return list<string> */
    public function whatIsThrownIsAFailure(): array
    {
        // A caller's mistake, and a stored value that is not what was stored, are told to programmers and to whoever read the value.
        $isAllowed = fn (string $name): bool => in_array($name, ['LogicException', 'UnexpectedValueException', 'self'], true)
            || is_subclass_of($name, Failure::class);

        return $this->where(fn (CodeFacts $file): array => array_filter($file->thrown(), fn (string $name): bool => ! $isAllowed($name)));
    }

    /** @return list<string> */
    public function classesAreClosed(): array
    {
        return $this->where(fn (CodeFacts $file): array => $file->openClasses());
    }

    /** @return list<string> */
    public function functionsHaveSevenParametersAtMost(): array
    {
        // What calls a library has the parameters that the library has.
        return $this->where(fn (CodeFacts $file): array => str_contains($file->path, '/Native/') ? [] : $file->manyParameters(7));
    }

    /** @return list<string> */
    public function linesAreWithin140Columns(): array
    {
        return $this->where(fn (CodeFacts $file): array => array_map(strval(...), $file->longLines(140)));
    }

    /**
     * @param  callable(CodeFacts): array<array-key, string>  $breaches
     * @return list<string> path and what breaks the rule there
     */
    private function where(callable $breaches): array
    {
        $found = [];
        foreach ($this->files as $file) {
            foreach ($breaches($file) as $breach) {
                $found[] = $file->path.': '.$breach;
            }
        }

        return $found;
    }
}
