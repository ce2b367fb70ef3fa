<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Models\Delivery;
use App\Models\Source;
use App\Values\DeliveryState;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Octavox\Core\Failure;
use Octavox\Core\Make\Abandoned;
use Octavox\Core\Make\Child;
use Octavox\Core\Plan\Existing;

/** Has one delivery made in a child process and relays to the database how far it is. */
final class MakeDelivery implements ShouldQueue
{
    use Queueable;

    private const SECONDS_BETWEEN_NOTES = 0.35;

    public int $tries = 1;

    public int $timeout = 0;

    public function __construct(private readonly int $delivery)
    {
        $this->onQueue('making');
    }

    public function handle(): void
    {
        $token = bin2hex(random_bytes(8));
        $taken = Delivery::query()->whereKey($this->delivery)->where('state', DeliveryState::Waiting)->update([
            'state' => DeliveryState::Making, 'token' => $token, 'worker' => getmypid(), 'begun_at' => now(), 'phase' => 'making',
            'done_samples' => 0, 'speed' => null, 'cancelling' => false, 'error_code' => null, 'error_says' => null,
        ]);
        $delivery = Delivery::query()->find($this->delivery);
        if ($taken === 0 || $delivery === null) {
            return;
        }
        $delivery->update(['attempts' => $delivery->attempts + 1]);
        try {
            $made = $this->make($delivery, $token);
            $delivery->update([
                'state' => $made['state'] === 'skipped' ? DeliveryState::Skipped : DeliveryState::Done,
                'path' => $made['path'], 'name' => basename((string) $made['path']), 'receipt' => $made['receipt'], 'done_samples' => $delivery->samples,
                'speed' => ($made['took'] ?? 0) > 0 ? $made['seconds'] / $made['took'] : null, 'worker' => null, 'ended_at' => now(),
            ]);
        } catch (Abandoned) {
            $delivery->update(['state' => DeliveryState::Cancelled, 'worker' => null, 'ended_at' => now()]);
        } catch (Failure $failure) {
            $delivery->update(['state' => DeliveryState::Failed, 'worker' => null, 'ended_at' => now(), 'error_code' => $failure->code(), 'error_says' => $failure->getMessage()]);
        }
    }

    /**
     * @return array<array-key, mixed>
     *
     * @throws Failure
     */
    private function make(Delivery $delivery, string $token): array
    {
        $plan = $delivery->carriedPlan();
        $child = Child::start($plan, $token, $plan->existing === Existing::Replace ? array_values(array_filter(Source::query()->pluck('path')->all(), is_string(...))) : []);
        $begun = microtime(true);
        $noted = 0.0;
        while ($child->listen()) {
            $child->wait(self::SECONDS_BETWEEN_NOTES);
            $now = microtime(true);
            if ($now - $noted < self::SECONDS_BETWEEN_NOTES) {
                continue;
            }
            $noted = $now;
            $delivery->update([
                'phase' => $child->phase()->value,
                'done_samples' => $child->done(),
                'speed' => $child->done() > 0 ? $child->done() / $delivery->rate / max(0.001, $now - $begun) : null,
            ]);
            if (Delivery::query()->whereKey($delivery->id)->value('cancelling')) {
                $child->cancel();
            }
        }

        return $child->delivery();
    }
}
