<?php

declare(strict_types=1);

namespace App\Console;

use App\Api\Documents;
use App\Orders\Models\Order;
use App\Orders\Values\OrderState;
use App\Results\Actions\ChangeResults;
use App\Results\Actions\HoldWork;
use App\Results\Queries\ResultList;
use App\Results\Values\ManyResults;
use Illuminate\Console\Command;

/** The orders of this machine on the command line. */
final class Orders extends Command
{
    private const MOST = 100;

    private const WRONG = 2;

    protected $signature =
        'octavox:orders {order? : its number, or all} {--json} {--hold} {--go-on} {--first} {--last} {--cancel} {--retry}';

    protected $description = 'List orders, and hold, hasten, cancel or begin them again';

    public function handle(ResultList $results, HoldWork $hold, ChangeResults $change): int
    {
        $argument = $this->argument('order');
        $number = is_string($argument) ? $argument : '';
        $wishes = array_values(array_filter(['hold', 'go-on', 'first', 'last', 'cancel', 'retry'],
            fn (string $one): bool => $this->option($one) === true));
        if (count($wishes) > 1 || $wishes !== [] && $number === '' || $number === 'all' && array_diff($wishes, ['hold', 'go-on']) !== []
            || ! in_array($number, ['', 'all'], true) && preg_match('/^\d{1,15}$/', $number) !== 1) {
            return $this->refuse('Name one order by its number, and one thing to do with it; all goes with --hold and --go-on.',
                self::WRONG);
        }
        $query = Order::query()->where('state', OrderState::Placed)->latest('id')->limit(self::MOST);
        $orders = in_array($number, ['', 'all'], true) ? $query->get() : $query->whereKey((int) $number)->get();
        if ($orders->isEmpty() && ! in_array($number, ['', 'all'], true)) {
            return $this->refuse("There is no order $number that was placed.", self::FAILURE);
        }
        if ($number === 'all' && $wishes !== []) {
            $hold->everything($wishes[0] === 'hold');
        } elseif ($wishes !== []) {
            $this->change($orders->firstOrFail(), $wishes[0], $results, $hold, $change);
        }
        $progress = $results->progress($orders->all());
        $documents = [];
        foreach ($orders as $order) {
            $own = $progress[$order->id];
            $documents[] = Documents::order($order->refresh(), $own);
            if (! $this->option('json')) {
                $this->output->writeln(sprintf('%d  %s  %s%s', $order->id, $order->heading(), $own->says(),
                    $order->held ? ', paused' : ''));
            }
        }
        if ($this->option('json')) {
            $this->output->writeln((string) json_encode(['orders' => $documents], JSON_PRETTY_PRINT | JSON_UNESCAPED_SLASHES
                | JSON_UNESCAPED_UNICODE | JSON_INVALID_UTF8_SUBSTITUTE));
        } elseif ($documents === []) {
            $this->output->writeln('Nothing was ordered yet.');
        }

        return self::SUCCESS;
    }

    private function change(Order $order, string $wish, ResultList $results, HoldWork $hold, ChangeResults $change): void
    {
        match ($wish) {
            'hold', 'go-on' => $hold->order($order, $wish === 'hold'),
            'first', 'last' => $hold->priority($order, $wish === 'first'),
            default => $change->each($results->many($order->id, []), $wish === 'cancel' ? ManyResults::Cancel : ManyResults::Retry),
        };
    }

    private function refuse(string $sentence, int $status): int
    {
        $this->getOutput()->getErrorStyle()->writeln($sentence);

        return $status;
    }
}
