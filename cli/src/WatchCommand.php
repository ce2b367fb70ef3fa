<?php

declare(strict_types=1);

namespace Octavox\Cli;

use Octavox\Core\Bytes\FolderWatch;
use Octavox\Core\Failure;
use Octavox\Core\Reading\UsualExtensions;

/** Makes results of what arrives in folders: each file once, when it is still. */
final class WatchCommand implements Command
{
    private const SECONDS_STILL = 5;

    /** Between two looks while something arrives, and while nothing does: a network drive may say nothing of what happens there. */
    private const SECONDS_SOON = 1.0;

    private const SECONDS_QUIET = 30.0;

    private readonly FolderWatch $watch;

    public function __construct(private readonly Arguments $arguments, private readonly Output $output)
    {
        $this->watch = new FolderWatch;
    }

    /** @throws Failure */
    public function run(): int
    {
        foreach ($this->arguments->paths === [] ? throw Usage::missing('The path of a folder') : $this->arguments->paths as $path) {
            is_dir($path) || throw Usage::value('watch', $path, 'a folder that is there');
        }
        $isOnce = $this->arguments->has('once') || $this->arguments->has('dry-run');
        $interruption = Interruption::awaited();
        $arrivals = Arrivals::of($this->arguments, $this->arguments->number('still') ?? self::SECONDS_STILL);
        $status = 0;
        $all = ['results' => [], 'left_out' => []];
        do {
            $isAnyComing = $arrivals->look($this->files());
            $still = $arrivals->still();
            if ($still !== []) {
                $make = new MakeCommand($this->arguments, $this->output, fn (FoundFile $file): bool => isset($still[$file->path]),
                    $interruption, $arrivals->taken(...));
                $made = $make->make();
                // What was only planned is not told of twice.
                $interruption->isWanted() || array_map($arrivals->told(...), array_keys($still));
                $status = max($status, $make->status());
                $isOnce ? $all = array_merge_recursive($all, array_intersect_key($made, $all)) : $this->output->line($made);
            }
            if ($isOnce && ! $isAnyComing || $interruption->isWanted()) {
                break;
            }
            $isAnyComing ? $interruption->pause(self::SECONDS_SOON) : $this->wait($interruption);
        } while (! $interruption->isWanted());
        if ($isOnce) {
            $this->output->document($interruption->isWanted() ? $all + ['stopped' => true] : $all);
        }

        return $interruption->isWanted() ? ($isOnce ? $interruption->status() : 0) : $status;
    }

    /** @return list<FoundFile> recordings by their names */
    private function files(): array
    {
        $files = [];
        $made = MadeFiles::open();
        foreach (Files::under($this->arguments->paths) as $file) {
            $this->watch->watch(dirname($file->path));
            if ($file->besides === null && UsualExtensions::isAny(pathinfo($file->path, PATHINFO_EXTENSION))
                && ! $made->hold($file->path)) {
                $files[] = $file;
            }
        }
        array_map($this->watch->watch(...), $this->arguments->paths);

        return $files;
    }

    private function wait(Interruption $interruption): void
    {
        $until = microtime(true) + self::SECONDS_QUIET;
        while (! $interruption->isWanted() && microtime(true) < $until && $this->watch->wait(1.0) === []) {
            continue;
        }
    }
}
