<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Json\Fields;
use Octavox\Core\Json\PathText;
use Octavox\Core\Plan\Plan;

/** What became of a plan that was carried out. */
final readonly class Result
{
    public const VERSION = 1;

    /**
     * @param  string  $path  of the file; where it was skipped, of the one that was there already
     * @param  ?Receipt  $receipt  null where it was skipped
     * @param  float  $took  seconds
     */
    private function __construct(public Plan $plan, public string $path, public ?Receipt $receipt, public float $took) {}

    public static function done(Plan $plan, string $path, Receipt $receipt, float $took): self
    {
        return new self($plan, $path, $receipt, $took);
    }

    /** Whether a file of the name was there and was to be left then. */
    public static function skipped(Plan $plan): self
    {
        return new self($plan, $plan->path(), null, 0.0);
    }

    public function isSkipped(): bool
    {
        return $this->receipt === null;
    }

    /** Length of the result in seconds. */
    public function seconds(): float
    {
        return ($this->receipt->samples ?? $this->plan->length()) / $this->plan->lengthRate();
    }

    /** @return array<string, mixed> without the plan, which whoever reads it has */
    public function toArray(): array
    {
        return ['version' => self::VERSION, 'path' => PathText::encode($this->path), 'receipt' => $this->receipt?->toArray(),
            'took' => round($this->took, 3)];
    }

    /**
     * @param  array<array-key, mixed>  $document  what {@see self::toArray()} gave
     *
     * @throws \UnexpectedValueException where it is not that
     */
    public static function fromArray(Plan $plan, array $document): self
    {
        $fields = new Fields($document);

        return new self($plan, $fields->text('path'), $fields->isNull('receipt') ? null : Receipt::fromArray($fields->map('receipt')),
            $fields->float('took'));
    }
}
