<?php

declare(strict_types=1);

namespace Octavox\Core\Parallel;

use Octavox\Core\Bytes\Native\System;

/**
 * Work that another processor does meanwhile, in a process forked from this one: it begins at once and knows all that is known here.
 * Whatever befalls that process costs nothing but time: whoever needs the result does the work then.
 */
final class ForkedTask
{
    /** sys/prctl.h: PR_SET_PDEATHSIG */
    private const END_WITH_PARENT = 1;

    private const SECONDS_BETWEEN_SIGNS = 1;

    private bool $ended = false;

    /** @var ?array<array-key, mixed> */
    private ?array $result = null;

    /** @param  resource  $stream */
    private function __construct(private readonly int $process, private $stream) {}

    public function __destruct()
    {
        $this->abandon();
    }

    /** Ends the process, if it has not ended yet. */
    public function abandon(): void
    {
        if (! $this->ended) {
            posix_kill($this->process, SIGKILL);
            $this->end();
        }
    }

    /**
     * Null where there is no second processor or where no process can be forked.
     *
     * @param  callable(resource): array<array-key, mixed>  $work  gets what {@see self::tell()} sends; must read files with
     *          sources of this system only, and write to none of those open here
     */
    public static function begin(callable $work): ?self
    {
        if (Processors::count() < 2 || ! function_exists('pcntl_fork')) {
            return null;
        }
        $ends = stream_socket_pair(STREAM_PF_UNIX, STREAM_SOCK_STREAM, 0);
        if ($ends === false) {
            return null;
        }
        $parent = posix_getpid();
        $process = pcntl_fork();
        if ($process === 0) {
            fclose($ends[0]);
            self::work($work, $ends[1], $parent);
        }
        fclose($ends[1]);

        return $process < 0 ? null : new self($process, $ends[0]);
    }

    /** Sends bytes; false once nobody takes them any more. */
    public function tell(string $bytes): bool
    {
        // A socket whose other end is gone says so with a notice; the count tells the same.
        set_error_handler(fn (): bool => true);
        try {
            for ($at = 0; $at < strlen($bytes); $at += $sent) {
                $sent = (int) fwrite($this->stream, $at === 0 ? $bytes : substr($bytes, $at));
                if ($sent === 0) {
                    return false;
                }
            }
        } finally {
            restore_error_handler();
        }

        return true;
    }

    /**
     * Waits for what it has found; null where it died.
     *
     * @param  callable(): void  $sign  told now and then that it is still waited for
     * @return ?array<array-key, mixed>
     */
    public function result(callable $sign): ?array
    {
        if ($this->ended) {
            return $this->result;
        }
        stream_socket_shutdown($this->stream, STREAM_SHUT_WR);
        stream_set_blocking($this->stream, false);
        $received = '';
        while (! feof($this->stream)) {
            $read = [$this->stream];
            $none = null;
            @stream_select($read, $none, $none, self::SECONDS_BETWEEN_SIGNS);
            $received .= (string) stream_get_contents($this->stream);
            $sign();
        }
        $this->end();
        $result = $received === '' ? null : json_decode($received, true);

        return $this->result = is_array($result) ? $result : null;
    }

    private function end(): void
    {
        $this->ended = true;
        fclose($this->stream);
        pcntl_waitpid($this->process, $status);
    }

    /**
     * The other end. It ends without a word, so that nothing that the first process has prepared for its own end happens here too.
     *
     * @param  resource  $stream
     */
    private static function work(callable $work, $stream, int $parent): never
    {
        System::calls()?->prctl(self::END_WITH_PARENT, SIGKILL);
        try {
            if (posix_getppid() === $parent) {
                $bytes = json_encode($work($stream), JSON_THROW_ON_ERROR | JSON_PRESERVE_ZERO_FRACTION);
                for ($at = 0; $at < strlen($bytes); $at += $sent) {
                    $sent = (int) fwrite($stream, substr($bytes, $at));
                    if ($sent === 0) {
                        break;
                    }
                }
            }
        } catch (\Throwable) {
            // Whoever waits does the work then, and meets the same trouble where it can be told.
        }
        while (true) {
            posix_kill(posix_getpid(), SIGKILL);
        }
    }
}
