<?php

declare(strict_types=1);

namespace Tests\Architecture;

use PhpParser\Node;
use PhpParser\Node\Expr;
use PHPStan\Analyser\Scope;
use PHPStan\Rules\IdentifierRuleError;
use PHPStan\Rules\Rule;
use PHPStan\Rules\RuleErrorBuilder;

/**
 * Functions that may be called in few places: by the class that calls them.
 *
 * @implements Rule<Expr\FuncCall>
 */
final class CallsRule implements Rule
{
    /** What is left over from looking for a mistake: nowhere. */
    private const DUMPS = ['var_dump', 'print_r', 'dd', 'dump', 'ray', 'debug_zval_refcount', 'error_log', 'create_function'];

    private const PROCESSES = ['exec', 'shell_exec', 'system', 'passthru', 'popen', 'proc_open', 'pcntl_fork', 'pcntl_exec'];

    /** Who begins processes. */
    private const BEGIN = '/^(App\\\\Processes|Octavox\\\\Core\\\\Parallel|Octavox\\\\Core\\\\Testing)\\\\/';

    private const FILES = ['file_get_contents', 'file_put_contents', 'file', 'file_exists', 'is_file', 'is_dir', 'is_link', 'stat',
        'filesize',
        'filemtime', 'fopen', 'fread', 'fgets', 'fwrite', 'scandir', 'glob', 'opendir', 'realpath', 'readlink', 'rename', 'unlink',
        'link', 'symlink',
        'copy', 'mkdir', 'rmdir', 'touch', 'tempnam', 'tmpfile', 'chmod', 'chown', 'ftruncate', 'move_uploaded_file', 'readfile',
        'parse_ini_file'];

    private const WRITES = ['fopen', 'file_put_contents', 'rename', 'unlink', 'link', 'symlink', 'copy', 'mkdir', 'rmdir', 'touch',
        'tempnam',
        'tmpfile', 'chmod', 'chown', 'ftruncate', 'move_uploaded_file'];

    /** Those of the core that write: makers, sinks, and whatever brings their files to their place. */
    private const WRITERS = '/^Octavox\\\\Core\\\\(Bytes\\\\(FileBytes|FileSink)|Make\\\\(Workplace|Journal|ReplacedFiles|Maker|Pipeline\\\\ParallelTail))$/';

    /**
     * Those below the room of bytes that look whether a file is there: what ships with Octavox, what the owner names, sheets that name
     * files.
     */
    private const LOOKERS = '/^Octavox\\\\Core\\\\(Order\\\\Recipes|Destination\\\\Destinations|Codec\\\\OutsideDecoders|Container\\\\Cue\\\\CueFormat)$/';

    /** Another answer at another time or in another process. */
    private const IMPURE = ['disk_free_space', 'getenv', 'time', 'microtime', 'hrtime', 'date', 'rand', 'mt_rand', 'random_int',
        'random_bytes',
        'uniqid', 'getmypid', 'php_sapi_name', 'ini_get', 'function_exists', 'class_exists', 'extension_loaded', 'gethostname',
        'php_uname', 'sleep',
        'usleep'];

    private const ASKED = ['route', 'url', 'request', 'session', 'redirect', 'response', 'view', 'abort', 'cookie', 'old', 'back'];

    /** The framework's own. */
    private const HELPERS = ['config', 'app', 'env', 'now', 'cache', 'collect', 'report', 'event', 'dispatch', 'base_path',
        'storage_path', 'resolve'];

    /** What has no word for it but a stored value that another release wrote. */
    private const UNSAFE = ['unserialize', 'mail', 'header', 'curl_init', 'fsockopen', 'stream_socket_client', 'eval', 'assert',
        'extract', 'parse_str'];

    public function getNodeType(): string
    {
        return Expr\FuncCall::class;
    }

    /** @return list<IdentifierRuleError> */
    public function processNode(Node $node, Scope $scope): array
    {
        $name = $node->name instanceof Node\Name ? strtolower($node->name->toString()) : '';
        $class = $scope->getClassReflection()?->getName() ?? '';
        $why = $name === '' ? null : $this->why($name, $class);

        return $why === null ? [] : [RuleErrorBuilder::message("$name() is not called here: $why.")->identifier('octavox.call')->build()];
    }

    private function why(string $name, string $class): ?string
    {
        $is = fn (string $pattern): bool => preg_match($pattern, $class) === 1;
        $core = fn (string $rooms): bool => $is('/^Octavox\\\\Core\\\\('.$rooms.')\\\\/');

        return match (true) {
            in_array($name, self::DUMPS, true) => 'it is left over from looking for a mistake',
            $class === '' => null,
            in_array($name, self::PROCESSES, true) && ! $is(self::BEGIN) && $is('/^(App|Octavox\\\\(Core|Cli))\\\\/') => 'processes begin in Processes and Parallel',
            in_array($name, self::UNSAFE, true) && ! $is('/^Octavox\\\\Core\\\\Analysis\\\\/') && $is('/^(App|Octavox\\\\(Core|Cli))\\\\/') => 'what it takes may be hostile',
            in_array($name, self::FILES, true) && $core('Plan|Order|Destination|Container|Codec') && ! $is(self::LOOKERS) => 'bytes are read in the room of bytes',
            in_array($name, self::WRITES, true) && $is('/^Octavox\\\\Core\\\\(?!Testing\\\\)/') && ! $is(self::WRITERS) => 'only makers and sinks write files',
            in_array($name, self::IMPURE, true) && $core('Plan|Order|Destination') => 'planning gives the same answer at all times',
            in_array($name, self::HELPERS, true) && $is('/^Octavox\\\\(Core|Cli)\\\\/') => 'the core knows no framework',
            in_array($name, self::ASKED, true) && $is('/^App\\\\[A-Za-z]+\\\\(Values|Models|Queries|Actions|Jobs|Planning)\\\\/') => 'who asks is known in pages only',
            in_array($name, ['app', 'resolve', 'sleep', 'usleep', ...self::FILES], true) && $is('/^App\\\\[A-Za-z]+\\\\Values\\\\/') => 'values hold values',
            default => null,
        };
    }
}
