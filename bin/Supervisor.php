<?php

declare(strict_types=1);

namespace Octavox\Run;

/** Keeps the parts of the running application alive: each in a process group of its own, begun again when it dies. */
final class Supervisor
{
    private const WEB_WORKERS = 14;

    private const MOST_MAKERS = 64;

    private const SECONDS_TO_STOP = 4.0;

    private const SECONDS_BETWEEN_LOOKS = 2.0;

    /** Bytes of memory that one process of the web server may have: a body that somebody sends is held whole. */
    private const MOST_WEB_BYTES = 1 << 29;

    private const SECONDS_FOR_PORT = 8.0;

    /** @var array<int, array{name: string, command: list<string>, env: array<string, string>, begun: float}> by process number */
    private array $running = [];

    /** @var array<int, true> makers that are not wanted any more and finish what they make, by process number */
    private array $leaving = [];

    private ?int $processors = null;

    private bool $stopping = false;

    /** Whether something of before was ended, which may take a moment. */
    private bool $hasEnded = false;

    private readonly string $home;

    /** @var array<string, string> */
    private array $environment;

    public function __construct(private readonly string $root, private readonly int $port, private readonly bool $demo)
    {
        $this->home = getenv('OCTAVOX_HOME') ?: $root.'/storage/app/octavox';
        $this->environment = ['OCTAVOX_HOME' => $this->home, 'OCTAVOX_PORT' => (string) $port, 'APP_URL' => "http://localhost:$port"];
    }

    public function run(): int
    {
        // What is kept here is its owner's only; what is put elsewhere is not.
        $this->environment['OCTAVOX_UMASK'] = sprintf('%04o', umask(0077));
        foreach (['', '/uploads', '/sources', '/results', '/waveforms', '/covers', '/journal', '/logs', '/sessions', '/cache',
            '/bells'] as $folder) {
            if (! is_dir($this->home.$folder) && ! mkdir($this->home.$folder, 0700, true)) {
                return $this->refuse("The folder {$this->home}$folder cannot be created; check who owns the folder above it.");
            }
            @chmod($this->home.$folder, 0700);
        }
        // Not inherited by what is started here: the lock goes with this process.
        $lock = fopen($this->home.'/running', 'c+e');
        if ($lock === false || ! flock($lock, LOCK_EX | LOCK_NB)) {
            return $this->refuse("Octavox is already running with what is kept in {$this->home}.");
        }
        $this->endLeftovers($lock);
        if (! $this->awaitPort()) {
            return $this->refuse("Port {$this->port} is taken by another program; choose another one with --port.");
        }
        $this->prepare();
        pcntl_async_signals(true);
        foreach ([SIGINT, SIGTERM, SIGHUP] as $signal) {
            pcntl_signal($signal, function (): void {
                $this->stopping = true;
            });
        }
        $this->startAll();
        $this->remember($lock);
        $this->awaitWeb();
        echo "Octavox is at http://localhost:{$this->port}\n";
        echo 'Results go to '.(getenv('OCTAVOX_RESULTS') ?: $this->home.'/results').". Stop with Ctrl-C.\n";
        $looked = microtime(true);
        while (! $this->stopping) {
            $this->beginAgain($lock);
            if (microtime(true) - $looked > self::SECONDS_BETWEEN_LOOKS) {
                $looked = microtime(true);
                $this->replaceWeb();
                $this->adjustMakers($lock);
            }
            usleep(250_000);
        }
        $this->stopAll();
        ftruncate($lock, 0);

        return 0;
    }

    private function prepare(): void
    {
        $key = $this->home.'/key';
        if (! is_file($key)) {
            file_put_contents($key, 'base64:'.base64_encode(random_bytes(32)));
            chmod($key, 0600);
        }
        $this->environment['APP_KEY'] = trim((string) file_get_contents($key));
        if ($this->demo) {
            $folder = $this->home.'/wrenfield';
            $this->environment['OCTAVOX_SHELVES'] = implode(':',
                array_filter([getenv('OCTAVOX_SHELVES') ?: '', "Wrenfield reopening=$folder"]));
            $this->wait($this->spawn('demo data', [PHP_BINARY, '-d', 'ffi.enable=1', $this->root.'/demo/build.php', $folder,
                $this->home], quiet: true));
        }
        if (! is_file($this->home.'/octavox.sqlite')) {
            touch($this->home.'/octavox.sqlite');
        }
        @chmod($this->home.'/octavox.sqlite', 0600);
        $this->artisan('migrate', '--force', '--quiet');
        $this->artisan('octavox:keep', '--start');
        // Before a drive is too full for it.
        $this->artisan('view:cache', '--quiet');
        if ($this->demo) {
            $this->artisan('octavox:load-demo', 'Wrenfield reopening');
        }
    }

    private function startAll(): void
    {
        $this->start('web',
            [PHP_BINARY, '-d', 'expose_php=0', '-d', 'post_max_size=64M', '-d', 'upload_max_filesize=32M', '-d', 'memory_limit=128M', '-S',
                "127.0.0.1:{$this->port}", '-t', $this->root.'/public', $this->root.'/bin/router.php'],
            ['PHP_CLI_SERVER_WORKERS' => (string) self::WEB_WORKERS]);
        if ((getenv('OCTAVOX_CATALOGUE') ?: '') === '' && $this->isFree($this->port + 1)) {
            $this->start('catalogue', [PHP_BINARY, '-d', 'expose_php=0', '-d', 'memory_limit=128M', '-S', '127.0.0.1:'.($this->port + 1),
                $this->root.'/catalogue/server.php']);
        }
        $this->startMakers();
        $this->start('reader', $this->worker('borders,reading,covers'));
        // Two, so that no analysis waits behind a long one; a recorder that is copied in holds up none.
        $this->start('analyzer 1', $this->worker('analysis,drawings'));
        $this->start('analyzer 2', $this->worker('analysis,drawings'));
        $this->start('copier', $this->worker('copying'));
        $this->start('keeper', [PHP_BINARY, $this->root.'/artisan', 'octavox:keep', '--quiet']);
    }

    /** Whether nobody listens at a port: the catalogue is left out where somebody does. */
    private function isFree(int $port): bool
    {
        $socket = @stream_socket_server("tcp://127.0.0.1:$port");
        if ($socket === false) {
            fwrite(STDERR, "Port $port is taken by another program, so there is no catalogue; OCTAVOX_CATALOGUE can name one.\n");

            return false;
        }
        fclose($socket);

        return true;
    }

    /** @return list<string> */
    private function worker(string $queue): array
    {
        return [PHP_BINARY, $this->root.'/artisan', 'queue:work', "--queue=$queue", '--tries=1', '--timeout=0', '--memory=256',
            '--quiet'];
    }

    private function startMakers(): void
    {
        $there = array_column($this->running, 'name');
        for ($hand = 1; $hand <= $this->makers(); $hand++) {
            if (! in_array("maker $hand", $there, true)) {
                $this->start("maker $hand", $this->worker('making'));
            }
        }
    }

    /**
     * As many makers as are wanted now; one too many finishes what it makes.
     *
     * @param  resource  $lock
     */
    private function adjustMakers($lock): void
    {
        $wanted = $this->makers();
        foreach ($this->running as $child => ['name' => $name]) {
            if (str_starts_with($name, 'maker ') && (int) substr($name, 6) > $wanted) {
                unset($this->running[$child]);
                $this->leaving[$child] = true;
                @posix_kill($child, SIGTERM);
            }
        }
        $this->startMakers();
        $this->remember($lock);
    }

    /** What somebody has set, else one for each processor. */
    private function makers(): int
    {
        $set = json_decode((string) @file_get_contents($this->home.'/settings.json'), true);
        $wanted = is_array($set) && is_int($set['workers'] ?? null) ? $set['workers'] : $this->processors();

        return max(1, min(self::MOST_MAKERS, $wanted));
    }

    /** The address is only told once somebody answers there. */
    private function awaitWeb(): void
    {
        for ($tries = 0; $tries < 200 && ! $this->stopping; $tries++) {
            $connection = @stream_socket_client("tcp://127.0.0.1:{$this->port}", $code, $message, 1.0);
            if ($connection !== false) {
                fclose($connection);

                return;
            }
            usleep(50_000);
        }
    }

    /**
     * @param  list<string>  $command
     * @param  array<string, string>  $env
     */
    private function start(string $name, array $command, array $env = []): void
    {
        $this->running[$this->spawn($name, $command, $env, quiet: in_array($name, ['web', 'catalogue'], true))] = ['name' => $name,
            'command' => $command,
            'env' => $env, 'begun' => microtime(true)];
    }

    /**
     * @param  list<string>  $command
     * @param  array<string, string>  $env
     */
    private function spawn(string $name, array $command, array $env = [], bool $quiet = false): int
    {
        $child = pcntl_fork();
        if ($child === 0) {
            posix_setpgid(0, 0);
            if ($name === 'web') {
                posix_setrlimit(POSIX_RLIMIT_AS, self::MOST_WEB_BYTES, self::MOST_WEB_BYTES);
            }
            if ($quiet) {
                fclose(STDOUT);
                fclose(STDERR);
                $GLOBALS['out'] = fopen('/dev/null', 'w');
                $GLOBALS['err'] = fopen($this->home.'/'.str_replace(' ', '-', $name).'.log', 'w');
            }
            pcntl_exec($command[0], array_slice($command, 1), [...getenv(), ...$this->environment, ...$env]);
            exit(127);
        }

        return $child;
    }

    /** @param  resource  $lock */
    private function beginAgain($lock): void
    {
        while (($child = pcntl_waitpid(-1, $status, WNOHANG)) > 0) {
            if (isset($this->leaving[$child])) {
                unset($this->leaving[$child]);
                @posix_kill(-$child, SIGKILL);
            }
            if (! isset($this->running[$child]) || $this->stopping) {
                continue;
            }
            ['name' => $name, 'command' => $command, 'env' => $env, 'begun' => $begun] = $this->running[$child];
            unset($this->running[$child]);
            @posix_kill(-$child, SIGKILL);
            if (microtime(true) - $begun < 1.0) {
                // Something that cannot even start is not begun again in a tight circle.
                sleep(1);
            }
            fwrite(STDERR, "$name ended and is begun again.\n");
            $this->start($name, $command, $env);
            $this->remember($lock);
        }
    }

    private function stopAll(): void
    {
        $until = microtime(true) + self::SECONDS_TO_STOP;
        $this->running += array_map(fn (): array => ['name' => 'maker', 'command' => [], 'env' => [], 'begun' => 0.0], $this->leaving);
        foreach ($this->running as $child => ['name' => $name]) {
            // A worker is told by itself: it puts back what it was making, and ends what it had begun for that.
            @posix_kill($name === 'web' ? -$child : $child, SIGTERM);
        }
        while ($this->running !== [] && microtime(true) < $until) {
            while (($child = pcntl_waitpid(-1, $status, WNOHANG)) > 0) {
                @posix_kill(-$child, SIGKILL);
                unset($this->running[$child]);
            }
            usleep(20_000);
        }
        foreach (array_keys($this->running) as $child) {
            @posix_kill(-$child, SIGKILL);
            pcntl_waitpid($child, $status);
        }
    }

    /** @param  resource  $lock */
    private function remember($lock): void
    {
        ftruncate($lock, 0);
        rewind($lock);
        fwrite($lock, implode("\n", [...array_keys($this->running), ...array_keys($this->leaving)]));
        fflush($lock);
        // For whoever wants to know whether all of it is there.
        @file_put_contents($this->home.'/processes.json', json_encode(array_column(array_map(
            fn (array $one, int $child): array => ['name' => $one['name'], 'process' => $child], $this->running, array_keys($this
                ->running)), 'process', 'name')));
    }

    /** The port may still be held for a moment by what was just ended. */
    private function awaitPort(): bool
    {
        $until = microtime(true) + self::SECONDS_FOR_PORT;
        do {
            $socket = @stream_socket_server("tcp://127.0.0.1:{$this->port}");
            if ($socket !== false) {
                fclose($socket);

                return true;
            }
            usleep(100_000);
        } while (microtime(true) < $until && $this->hasEnded);

        return false;
    }

    /** The web server does not replace its own workers. */
    private function replaceWeb(): void
    {
        foreach ($this->running as $child => ['name' => $name, 'begun' => $begun]) {
            if ($name === 'web' && microtime(true) - $begun > 5.0 && count(self::members($child)) <= self::WEB_WORKERS) {
                @posix_kill(-$child, SIGKILL);
            }
        }
    }

    /** @return list<int> processes of a group */
    private static function members(int $group): array
    {
        $members = [];
        foreach (glob('/proc/[0-9]*/stat') ?: [] as $stat) {
            $facts = (string) @file_get_contents($stat);
            $fields = explode(' ', substr($facts, (int) strrpos($facts, ')') + 2));
            if ((int) ($fields[2] ?? 0) === $group && ($fields[0] ?? 'Z') !== 'Z') {
                $members[] = (int) $facts;
            }
        }

        return $members;
    }

    /**
     * What a supervisor left that was killed itself: the groups that it wrote down, and whatever else works with what is kept here.
     *
     * @param  resource  $lock
     */
    private function endLeftovers($lock): void
    {
        $noted = array_filter(array_map(intval(...), explode("\n", (string) stream_get_contents($lock))));
        $own = [getmypid(), posix_getppid()];
        foreach (glob('/proc/[0-9]*') ?: [] as $folder) {
            $process = (int) basename($folder);
            $command = (string) @file_get_contents($folder.'/cmdline');
            if (in_array($process, $own, true) || ! str_contains($command, $this->root)) {
                continue;
            }
            $stat = (string) @file_get_contents($folder.'/stat');
            $group = (int) (explode(' ', substr($stat, (int) strrpos($stat, ')') + 2))[2] ?? 0);
            $isOurs = in_array('OCTAVOX_HOME='.$this->home, explode("\0", (string) @file_get_contents($folder.'/environ')), true)
                && preg_match('#/(artisan|router\.php|core/bin/)#', $command) === 1;
            if (in_array($group, $noted, true) || $isOurs) {
                $this->hasEnded = @posix_kill($process, SIGKILL) || $this->hasEnded;
            }
        }
    }

    private function artisan(string ...$words): void
    {
        $this->wait($this->spawn('artisan', [PHP_BINARY, $this->root.'/artisan', ...array_values($words)]));
    }

    private function wait(int $child): void
    {
        pcntl_waitpid($child, $status);
        if (! pcntl_wifexited($status) || pcntl_wexitstatus($status) !== 0) {
            fwrite(STDERR, "A step of the preparation failed; the lines above say why.\n");
            if ($this->running === []) {
                exit(1);
            }
        }
    }

    private function processors(): int
    {
        return $this->processors ??= max(1, (int) trim((string) shell_exec('nproc')));
    }

    private function refuse(string $sentence): int
    {
        fwrite(STDERR, $sentence."\n");

        return 1;
    }
}
