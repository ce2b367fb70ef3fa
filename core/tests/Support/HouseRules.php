<?php

declare(strict_types=1);

namespace Octavox\Core\Tests\Support;

use Octavox\Core\Failure;
use Octavox\Core\Testing\CodeFacts;

/** The rules of the house, each a method that names the files which break it; they look at parsed code, so no spelling hides a breach. */
final readonly class HouseRules
{
    /** Who may use whom: each room those before it that are named. `docs/architecture.md` draws this table. */
    public const ROOMS = [
        '' => [],
        'Bytes' => [],
        'Json' => [],
        'Sound' => [],
        'Media' => ['Bytes', 'Json', 'Sound'],
        'Tag' => ['Bytes'],
        'Name' => [],
        'Codec' => ['Bytes', 'Sound', 'Media'],
        'Container' => ['Bytes', 'Sound', 'Media', 'Tag', 'Codec'],
        'Disc' => ['Bytes', 'Sound', 'Media', 'Tag', 'Codec', 'Container'],
        'Reading' => ['Bytes', 'Json', 'Sound', 'Media', 'Tag', 'Name', 'Codec', 'Container', 'Disc'],
        'Parallel' => ['Bytes', 'Json', 'Media'],
        'Decode' => ['Sound', 'Media', 'Codec', 'Container', 'Reading', 'Parallel'],
        'Analysis' => ['Bytes', 'Json', 'Sound', 'Media', 'Tag', 'Codec', 'Container', 'Reading', 'Decode', 'Parallel'],
        'Order' => ['Json', 'Sound', 'Media', 'Tag', 'Name', 'Codec', 'Container'],
        'Plan' => ['Json', 'Sound', 'Media', 'Tag', 'Name', 'Codec', 'Container', 'Reading', 'Analysis', 'Order'],
        'Destination' => ['Json', 'Sound', 'Media', 'Tag', 'Name', 'Codec', 'Container', 'Reading', 'Analysis', 'Order', 'Plan'],
        'Make' => ['Bytes', 'Json', 'Sound', 'Media', 'Tag', 'Name', 'Codec', 'Container', 'Reading', 'Decode', 'Parallel',
            'Analysis', 'Order', 'Plan', 'Destination'],
    ];

    private const NAMESPACE = 'Octavox\\Core\\';

    /** Functions that create, change or take away files, and the only files that call them. */
    private const WRITES = [
        'fopen' => ['Bytes/FileBytes.php', 'Bytes/FileSink.php', 'Make/Workplace.php'], 'file_put_contents' => ['Make/Journal.php', 'Make/ReplacedFiles.php'],
        'rename' => ['Make/Journal.php', 'Make/ReplacedFiles.php', 'Make/Workplace.php'],
        'unlink' => ['Make/Journal.php', 'Make/Maker.php', 'Make/Workplace.php', 'Make/Pipeline/ParallelTail.php'],
        'link' => ['Make/ReplacedFiles.php', 'Make/Workplace.php'], 'mkdir' => ['Make/ReplacedFiles.php', 'Make/Workplace.php'], 'symlink' => [], 'copy' => [], 'rmdir' => [], 'touch' => [],
        'tempnam' => [], 'tmpfile' => [],
        'chmod' => [], 'chown' => [], 'ftruncate' => ['Bytes/FileSink.php'], 'move_uploaded_file' => [],
    ];

    /** Functions that print, end or begin processes, and the only rooms that call them. */
    private const PROCESS = [
        'exec' => [], 'shell_exec' => [], 'system' => [], 'passthru' => [], 'popen' => [], 'proc_open' => ['Parallel'],
        'pcntl_fork' => ['Parallel'], 'pcntl_exec' => [],
        'var_dump' => [], 'print_r' => [], 'printf' => [], 'dd' => [], 'dump' => [], 'error_log' => [], 'eval' => [],
        'mail' => [], 'header' => [],
        'unserialize' => ['Analysis'], 'curl_init' => [], 'fsockopen' => [], 'stream_socket_client' => [],
    ];

    /** What planning may not call: whatever opens, reads, asks the machine, or is another answer at another time. */
    private const IMPURE = [
        'file_get_contents', 'file', 'file_exists', 'is_file', 'is_dir', 'is_link', 'stat', 'filesize', 'filemtime', 'fread', 'fgets',
        'scandir', 'glob', 'realpath', 'readlink',
        'disk_free_space', 'getenv', 'time', 'microtime', 'hrtime', 'date', 'rand', 'mt_rand', 'random_int', 'random_bytes', 'uniqid',
        'getmypid', 'php_sapi_name', 'ini_get',
        'function_exists', 'class_exists', 'extension_loaded', 'gethostname', 'php_uname', 'sleep', 'usleep',
    ];

    /** Classes that open sources or codec libraries. */
    private const OPENERS = [
        'Reading\Opener', 'Reading\Reader', 'Reading\BorderFinder', 'Reading\OpenedSource', 'Container\Containers', 'Container\Demuxer',
        'Analysis\Analyzer', 'Analysis\ParallelAnalysis', 'Analysis\SizeTrial', 'Analysis\Excerpt', 'Analysis\Waveform',
    ];

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
    public function roomsUseOnlyThoseBefore(): array
    {
        return $this->where(function (CodeFacts $file): array {
            $used = array_map(fn (string $name): string => self::roomOf($name), self::ownNames($file));

            return array_diff($used, [...self::ROOMS[$file->room()] ?? [], $file->room(), '']);
        });
    }

    /** @return list<string> */
    public function theCoreKnowsNobodyOutside(): array
    {
        $isOutside = fn (string $name): bool => str_contains($name, '\\') && ! str_starts_with($name, self::NAMESPACE)
            && ! str_starts_with($name, 'FFI\\') && ! str_starts_with($name, 'Random\\');

        return $this->where(fn (CodeFacts $file): array => array_filter($file->names(), $isOutside));
    }

    /** @return list<string> */
    public function onlyNativeFoldersTouchFfi(): array
    {
        return $this->where(fn (CodeFacts $file): array => str_contains($file->path, '/Native/')
            ? [] : array_filter($file->names(), fn (string $name): bool => $name === 'FFI' || str_starts_with($name, 'FFI\\')));
    }

    /** @return list<string> */
    public function containersKnowNoCodecLibrary(): array
    {
        $isLibrary = fn (string $name): bool => preg_match('/^Octavox\\\\Core\\\\Codec\\\\(Native\\\\|Codecs$|.*(Decoder|Encoder)$)/',
            $name) === 1;

        return $this->where(fn (CodeFacts $file): array => $file->room() === 'Container' ? array_filter($file->names(), $isLibrary) : []);
    }

    /** @return list<string> */
    public function onlyMakersAndSinksWriteFiles(): array
    {
        return $this->where(fn (CodeFacts $file): array => array_filter(
            $file->functions(), fn (string $name): bool => isset(self::WRITES[$name]) && ! in_array($file->path, self::WRITES[$name], true),
        ));
    }

    /** @return list<string> */
    public function onlyMakersAndAnalysesCreateSinks(): array
    {
        return $this->where(fn (CodeFacts $file): array => in_array($file->room(), ['Bytes', 'Make', 'Analysis'], true) ? [] : array_filter(
            $file->staticCalls(), fn (string $call): bool => str_starts_with($call, self::NAMESPACE.'Bytes\\FileSink::'),
        ));
    }

    /** @return list<string> */
    public function nothingPrintsOrEnds(): array
    {
        return $this->where(fn (CodeFacts $file): array => [...array_diff($file->output(), ['']), ...array_filter(
            $file->functions(), fn (string $name): bool => isset(self::PROCESS[$name])
                && ! in_array($file->room(), self::PROCESS[$name], true),
        )]);
    }

    /** @return list<string> */
    public function planningOpensNothing(): array
    {
        $openers = array_map(fn (string $name): string => self::NAMESPACE.$name, self::OPENERS);

        // Those that ship with Octavox are read somewhere.
        $pure = fn (CodeFacts $file): bool => in_array($file->room(), ['Plan', 'Order', 'Destination'], true)
            && ! in_array($file->path, ['Destination/Destinations.php', 'Order/Recipes.php'], true);

        return $this->where(fn (CodeFacts $file): array => $pure($file) ? [
            ...array_intersect($file->functions(), self::IMPURE),
            ...array_filter($file->names(), fn (string $name): bool => in_array($name, $openers, true) || str_contains($name, '\\Native\\')
                || self::roomOf($name) === 'Bytes'),
            ...array_filter($file->staticCalls(), fn (string $call): bool => str_starts_with($call, self::NAMESPACE.'Codec\\Codecs::')
                && ! str_ends_with($call, '::canDecode')),
        ] : []);
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
    public function everythingIsStrict(): array
    {
        return $this->where(fn (CodeFacts $file): array => $file->isStrict() ? [] : ['no strict types']);
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

    /** @return list<string> */
    public function whatThrowsSaysSo(): array
    {
        return $this->where(fn (CodeFacts $file): array => $file->untoldThrows());
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

    /** @return list<string> */
    private static function ownNames(CodeFacts $file): array
    {
        return array_values(array_filter($file->names(), fn (string $name): bool => str_starts_with($name, self::NAMESPACE)));
    }

    private static function roomOf(string $name): string
    {
        $parts = explode('\\', substr($name, strlen(self::NAMESPACE)));

        return str_starts_with($name, self::NAMESPACE) && count($parts) > 1 ? $parts[0] : '';
    }
}
