<?php

declare(strict_types=1);

namespace App\Orders\Planning;

use App\Orders\Models\Order;
use App\Orders\Models\OrderLine;
use App\Sources\Models\Track;
use Illuminate\Support\Facades\Cache;
use Octavox\Core\Name\NamePattern;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Plan\Plan;
use Octavox\Core\Reading\Reading;

/**
 * What was planned for the lines of a draft, so that a sheet of hundreds is not planned anew whenever one of them changes. Lines that are
 * cut or share their gain are never in it: what they come from lies outside of them.
 */
final class SheetMemory
{
    private const HOURS = 48;

    /** @var array<int, RememberedLine> by line, as it was found */
    private array $known;

    /** @var array<int, RememberedLine> as it is kept */
    private array $next = [];

    private function __construct(private readonly string $name)
    {
        $found = Cache::get($name);
        $this->known = is_array($found) ? array_filter($found, fn (mixed $one): bool => $one instanceof RememberedLine) : [];
    }

    public static function of(Order $order): self
    {
        return new self(sprintf('sheet-%d-%d-%d', Plan::VERSION, Reading::VERSION, $order->id));
    }

    /**
     * By what a line is known again; null where it is not to be remembered.
     *
     * @param  OutputSpec  $spec  all that is asked of it
     * @param  string  $common  what counts for all lines of the order: what is asked of it, and where it goes
     * @param  int  $number  place of the line in its order
     */
    public static function key(OrderLine $line, OutputSpec $spec, string $common, int $number): ?string
    {
        foreach ($spec->sounds as $sound) {
            if (! in_array($sound->pieces, [null, ''], true) || $sound->together === true) {
                return null;
            }
        }
        $source = $line->source;
        $parts = [
            $common, (string) $spec->place, self::raw($line->getRawOriginal('spec')), self::raw($source->getRawOriginal('reading')),
            self::raw($source->getRawOriginal('catalogue')), $source->name, (string) $source->folder, (string) $source->origin,
            // A name that counts lines is another one for each place.
            (new NamePattern((string) $spec->name))->has('number') ? (string) $number : '',
            ...$source->tracks->map(fn (Track $track): string => self::raw($track->getRawOriginal('analysis')))->all(),
        ];

        return hash('xxh128', implode("\0", array_map(fn (string $part): string => strlen($part).':'.$part, $parts)));
    }

    public function recall(int $line, ?string $key): ?RememberedLine
    {
        $one = $this->known[$line] ?? null;
        if ($one === null || $key === null || $one->key !== $key) {
            return null;
        }

        return $this->next[$line] = $one;
    }

    public function keep(int $line, RememberedLine $one): void
    {
        $this->next[$line] = $one;
    }

    /** Where nothing is new nothing is written. */
    public function save(): void
    {
        $isNew = array_filter($this->next, fn (RememberedLine $one, int $line): bool => ($this->known[$line] ?? null) !== $one,
            ARRAY_FILTER_USE_BOTH) !== [];
        if ($isNew) {
            Cache::put($this->name, $this->next, now()->addHours(self::HOURS));
        }
    }

    private static function raw(mixed $value): string
    {
        return is_string($value) ? $value : '';
    }
}
