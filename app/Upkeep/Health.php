<?php

declare(strict_types=1);

namespace App\Upkeep;

use App\Settings\Queries\KeptFree;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/** Whether all parts of Octavox are there and at work. */
final class Health
{
    /** Touched by the keeper at each look. */
    public const KEEPER = 'kept';

    private const SECONDS_BETWEEN_LOOKS = 60;

    private const PARTS = '/^(web|maker \d+|reader|analyzer \d+|copier|keeper)$/';

    private const MOST_FAILED = 20;

    public function __construct(private readonly KeptFree $room) {}

    /** @return array<string, string> what is wrong with each part, in a sentence; empty where it is well */
    public function parts(): array
    {
        return ['database' => $this->database(), 'workers' => $this->workers(), 'keeper' => $this->keeper(), 'room' => $this->room->says()];
    }

    /** @return Collection<int, \stdClass> the newest jobs that came to nothing: `queue`, `says`, `failed_at` */
    public function failedJobs(): Collection
    {
        return DB::table('failed_jobs')->orderByDesc('id')->limit(self::MOST_FAILED)
            ->selectRaw('queue, failed_at, substr(exception, 1, instr(exception || char(10), char(10)) - 1) as says')->get();
    }

    private function database(): string
    {
        try {
            DB::table('jobs')->exists();

            return '';
        } catch (\PDOException) {
            return 'The database does not answer.';
        }
    }

    private function workers(): string
    {
        $running = json_decode((string) @file_get_contents(config()->string('octavox.home').'/processes.json'), true);
        $gone = [];
        foreach (is_array($running) ? $running : [] as $name => $process) {
            if (preg_match(self::PARTS, (string) $name) === 1 && (! is_int($process) || ! posix_kill($process, 0))) {
                $gone[] = $name;
            }
        }

        return match (true) {
            ! is_array($running) => 'Nothing works: Octavox was not started with its own command.',
            $gone !== [] => sprintf('Not running: %s. It is started again within seconds; if not, restart Octavox.', implode(', ',
                $gone)),
            default => '',
        };
    }

    private function keeper(): string
    {
        $path = config()->string('octavox.home').'/'.self::KEEPER;
        clearstatcache(true, $path);

        return time() - (int) @filemtime($path) > self::SECONDS_BETWEEN_LOOKS
            ? 'The keeper has not looked around for more than a minute: what was interrupted is not taken up.' : '';
    }
}
