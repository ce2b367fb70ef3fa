<?php

declare(strict_types=1);

namespace Octavox\Core\Parallel;

/**
 * A program that is none of ours, behind walls: no input, bounded memory and time, its words on its troubles bounded, ended together with
 * whatever it began as soon as nobody wants more of it.
 */
final class OutsideProgram
{
    /** Kilobytes of address space, and seconds of a processor. */
    private const LIMITS = 'ulimit -v 4194304 -t 7200 2>/dev/null; exec "$@"';

    private const WITH_PARENT = ['/usr/bin/setpriv', '--pdeathsig', 'KILL'];

    /** Seconds without a byte after which it is given up. */
    private const SILENCE = 15;

    private const MOST_WORDS = 2000;

    /** @var resource */
    private $process;

    /** @var array<int, resource> */
    private array $pipes;

    private string $troubles = '';

    private bool $isSilent = false;

    /**
     * @param  resource  $process
     * @param  array<int, resource>  $pipes
     */
    private function __construct($process, array $pipes, private readonly int $patience)
    {
        $this->process = $process;
        $this->pipes = $pipes;
    }

    public function __destruct()
    {
        $this->end();
    }

    /**
     * @param  non-empty-list<string>  $words
     * @param  ?int  $patience  seconds without a byte after which it is given up; null for what is usual
     * @return ?self null where it cannot be begun
     */
    public static function begin(array $words, ?int $patience = null): ?self
    {
        $pipes = [];
        // A session of its own, so that all of it can be ended; and it ends with whoever began it, should that be killed.
        $process = @proc_open([...self::WITH_PARENT, '/usr/bin/setsid', '--wait', ...self::WITH_PARENT, '/bin/sh', '-c', self::LIMITS,
            'sh', ...$words],
            [['file', '/dev/null', 'r'], ['pipe', 'w'], ['pipe', 'w']], $pipes, '/', ['PATH' => (string) getenv('PATH'),
                'LANG' => 'C.UTF-8']);
        if (! is_resource($process)) {
            return null;
        }
        stream_set_blocking($pipes[1], false);
        stream_set_blocking($pipes[2], false);

        return new self($process, $pipes, $patience ?? self::SILENCE);
    }

    /** Up to so many of its next bytes; none where it has said all, or has been silent too long. */
    public function read(int $most): string
    {
        $since = hrtime(true);
        while (! feof($this->pipes[1])) {
            [$readable, $none, $nothing] = [[$this->pipes[1], $this->pipes[2]], null, null];
            if (feof($this->pipes[2])) {
                $readable = [$this->pipes[1]];
            }
            if (@stream_select($readable, $none, $nothing, 1) !== false) {
                $this->hearTroubles();
                $bytes = (string) @fread($this->pipes[1], max(1, $most));
                if ($bytes !== '') {
                    return $bytes;
                }
            }
            if ((hrtime(true) - $since) / 1e9 > $this->patience) {
                $this->isSilent = true;

                return '';
            }
        }

        return '';
    }

    /** Whether it said nothing for so long that it was given up. */
    public function wasSilent(): bool
    {
        return $this->isSilent;
    }

    /** The last line of its words on its troubles. */
    public function complaint(): string
    {
        $lines = array_values(array_filter(array_map(trim(...), explode("\n", mb_scrub($this->troubles)))));

        return mb_substr((string) preg_replace('/[\x00-\x1F\x7F]+/', ' ', $lines === [] ? '' : $lines[count($lines) - 1]), 0, 200);
    }

    /** Waits for its end, once all it says was read; gives the number that it ended with, -1 where a signal ended it, or nothing did. */
    public function status(): int
    {
        for ($wait = 0; $wait < 50; $wait++) {
            $state = proc_get_status($this->process);
            // What it complained of as it ended still lies in the pipe, and may be all that it waits to say.
            while ($this->hearTroubles()) {
            }
            if (! $state['running']) {
                return $state['signaled'] ? -1 : $state['exitcode'];
            }
            usleep(100_000);
        }

        return -1;
    }

    /** Takes some of its words on its troubles, and keeps the last of them; whether there were any. */
    private function hearTroubles(): bool
    {
        $words = (string) @stream_get_contents($this->pipes[2], self::MOST_WORDS);
        $this->troubles = substr($this->troubles.$words, -self::MOST_WORDS);

        return $words !== '';
    }

    public function end(): void
    {
        if (! is_resource($this->process)) {
            return;
        }
        $state = proc_get_status($this->process);
        if ($state['running']) {
            $this->endAll($state['pid']);
        }
        array_map(fn ($pipe) => is_resource($pipe) && fclose($pipe), $this->pipes);
        proc_close($this->process);
    }

    /** The session is that of the process which `setsid` began: its child. */
    private function endAll(int $pid): void
    {
        foreach (explode(' ', trim((string) @file_get_contents("/proc/$pid/task/$pid/children"))) as $child) {
            if ((int) $child > 0) {
                posix_kill(-(int) $child, SIGKILL);
            }
        }
        posix_kill(-$pid, SIGKILL);
        posix_kill($pid, SIGKILL);
    }
}
