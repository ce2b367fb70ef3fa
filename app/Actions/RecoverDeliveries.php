<?php

declare(strict_types=1);

namespace App\Actions;

use App\Jobs\ListenToSource;
use App\Jobs\MakeDelivery;
use App\Jobs\ReadSource;
use App\Models\Delivery;
use App\Models\Source;
use App\Models\Track;
use App\Values\DeliveryState;
use App\Values\SourceState;
use Illuminate\Support\Facades\DB;
use Octavox\Core\Make\Workplace;

/** After a crash: deliveries whose worker is gone are begun again, a few times at most; their temporary files go. */
final class RecoverDeliveries
{
    /** Gives how many were taken up. */
    public function recover(): int
    {
        $lost = Delivery::query()->where('state', DeliveryState::Making)->get()->filter(fn (Delivery $delivery): bool => ! self::isAlive($delivery->worker));
        $lost->each($this->takeUp(...));
        // Whose reader is gone nobody can tell; reading something twice does no harm.
        DB::table('jobs')->whereIn('queue', ['reading', 'listening'])->update(['reserved_at' => null]);

        return $lost->count();
    }

    /** At the very start nobody works: jobs that were reserved are lost, and every waiting thing gets a fresh one. */
    public function recoverAll(): void
    {
        // Process numbers of before mean nothing now: another process may have them.
        Delivery::query()->where('state', DeliveryState::Making)->get()->each($this->takeUp(...));
        DB::table('jobs')->delete();
        foreach (Delivery::query()->where('state', DeliveryState::Waiting)->orderBy('id')->pluck('id') as $id) {
            MakeDelivery::dispatch((int) $id);
        }
        foreach (Source::query()->where('state', SourceState::Reading)->orderBy('id')->pluck('id') as $id) {
            ReadSource::dispatch((int) $id);
        }
        foreach (Track::query()->where('kind', 'sound')->whereNull('heard')->whereNull('heard_says')->distinct()->orderBy('source_id')->pluck('source_id') as $id) {
            ListenToSource::dispatch((int) $id);
        }
    }

    private function takeUp(Delivery $delivery): void
    {
        if ($delivery->token !== null) {
            @unlink((new Workplace($delivery->carriedPlan()->folder))->temporary($delivery->token));
        }
        if ($delivery->cancelling) {
            $delivery->update(['state' => DeliveryState::Cancelled, 'worker' => null, 'ended_at' => now()]);
        } elseif ($delivery->attempts >= config('octavox.attempts')) {
            $delivery->update([
                'state' => DeliveryState::Failed, 'worker' => null, 'ended_at' => now(), 'error_code' => 'interrupted',
                'error_says' => sprintf('The work on this file was interrupted %d times, so it is not begun again by itself; nothing was left behind. Try again when the machine is at rest.', $delivery->attempts),
            ]);
        } else {
            $delivery->update(['state' => DeliveryState::Waiting, 'worker' => null, 'done_samples' => 0, 'speed' => null]);
            MakeDelivery::dispatch($delivery->id);
        }
    }

    private static function isAlive(?int $process): bool
    {
        return $process !== null && posix_kill($process, 0);
    }
}
