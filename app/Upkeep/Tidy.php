<?php

declare(strict_types=1);

namespace App\Upkeep;

use App\Http\AnsweredRequest;
use App\Orders\Models\Order;
use App\Processes\BoundedLog;
use App\Processes\FileLock;
use App\Results\Models\Result;
use App\Sources\Models\Source;
use App\Sources\Models\Upload;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\File;

/** Throws away uploads that nobody went on with, and what belongs to rows that are gone. */
final class Tidy
{
    private const MINUTES_UNTOUCHED = 10;

    private const DAYS_OF_LOGS = 30;

    public function tidy(): void
    {
        /** @var Upload $upload */
        foreach (Upload::query()->whereNull('source_id')->where('expires_at', '<', now())->get() as $upload) {
            $upload->giveUp();
        }
        // Uploads that became sources long ago: nobody asks for them any more.
        Upload::query()->whereNotNull('source_id')->where('expires_at', '<', now())->delete();
        $kept = now()->subHours(AnsweredRequest::HOURS);
        AnsweredRequest::query()->where('created_at', '<', $kept)->delete();
        Order::query()->whereNotNull('asked_by')->where('created_at', '<', $kept)->update(['asked_by' => null]);
        $this->sweep('uploads', fn (string $name): bool => preg_match('/^[0-9a-f-]{36}(\.|$)/', $name) !== 1 || Upload::query()
            ->whereKey(substr($name, 0, 36))->whereNull('source_id')->exists());
        $this->sweep('covers', fn (string $name): bool => preg_match('/^\d+$/', $name) !== 1 || Source::everyOne()
            ->whereKey((int) $name)->exists());
        $this->sweep('waveforms', fn (string $name): bool => match (true) {
            preg_match('/^(\d+)-\d+\.waveform$/', $name, $parts) === 1 => Source::everyOne()->whereKey((int) $parts[1])->exists(),
            preg_match('/^result-(\d+)\.waveform$/', $name, $parts) === 1 => Result::query()->whereKey((int) $parts[1])->exists(),
            // What is not named by us is not ours to throw away.
            default => ! str_ends_with($name, '.part'),
        });
        $this->sweep('journal', fn (string $name): bool => preg_match('/^\d/', $name) !== 1 || Result::query()->whereKey((int) $name)
            ->where('state', 'making')->exists());
        $this->sweep('logs', fn (string $name): bool => match (true) {
            preg_match('/^(\d+)\.log$/', $name, $parts) === 1, preg_match('/^result-(\d+)-/', $name, $parts) === 1 => Result::query()
                ->whereKey((int) $parts[1])->where('updated_at', '>', now()->subDays(self::DAYS_OF_LOGS))->exists(),
            preg_match('/^source-(\d+)\.log$/', $name, $parts) === 1 => Source::everyOne()->whereKey((int) $parts[1])->exists(),
            default => true,
        });
        array_map(BoundedLog::bound(...), [...File::glob(config()->string('octavox.home').'/octavox*.log'),
            ...File::glob(config()->string('octavox.home').'/logs/*.log')]);
        DB::table('failed_jobs')->where('failed_at', '<', now()->subDays(self::DAYS_OF_LOGS))->delete();
        // What a process left that was ended by whoever hung up; one that is held stays.
        $this->sweep('locks', function (string $name): bool {
            $lock = str_starts_with($name, 'sending-') ? FileLock::take($name) : null;
            $lock?->release();

            return true;
        });
    }

    /** @param  callable(string): bool  $isWanted  told the name of each file that was left alone for a while */
    private function sweep(string $folder, callable $isWanted): void
    {
        $folder = config()->string('octavox.home').'/'.$folder;
        foreach (File::isDirectory($folder) ? File::files($folder) : [] as $file) {
            if ($file->getMTime() < now()->subMinutes(self::MINUTES_UNTOUCHED)->getTimestamp() && ! $isWanted($file->getFilename())) {
                File::delete($file->getPathname());
            }
        }
    }
}
