<?php

declare(strict_types=1);

namespace App\Orders\Pages;

use App\Orders\Planning\SheetLine;
use Octavox\Core\Sound\InvalidLevel;

/** Which lines of a sheet are looked at, as its address says it. */
final readonly class SheetView
{
    public const SHOWN = ['all' => 'all lines', 'marked' => 'marked ones', 'stopped' => 'what stands in the way',
        'changed' => 'changed ones',
        'remade' => 'remade ones', 'kept' => 'kept ones'];

    public const ORDERS = ['' => 'as added', 'name' => 'by name', 'folder' => 'by folder', 'length' => 'longest first',
        'size' => 'largest first'];

    /** Lines that are shown at once; the others come when they are looked at. */
    public const USUAL = 60;

    private const MOST = 2000;

    private function __construct(public string $find, public string $show, public string $by, public int $from, public int $count) {}

    public static function of(string $find, string $show, string $by, int $from = 0, int $count = self::USUAL): self
    {
        return new self(trim($find), isset(self::SHOWN[$show]) ? $show : 'all', isset(self::ORDERS[$by]) ? $by : '', max(0, $from),
            max(1, min(self::MOST, $count)));
    }

    /** @param  array<array-key, mixed>  $input */
    public static function fromInput(array $input): self
    {
        $text = fn (string $name): string => is_string($input[$name] ?? null) ? mb_scrub(mb_strcut($input[$name], 0, 400)) : '';
        $number = fn (string $name, int $else): int => ctype_digit($text($name)) && strlen($text($name)) < 10 ? (int) $text($name) : $else;

        return self::of($text('find'), $text('show'), $text('by'), $number('from', 0), $number('count', self::USUAL));
    }

    /** @return array<string, string> what stands in the address */
    public function query(): array
    {
        return array_filter(['find' => $this->find, 'show' => $this->show === 'all' ? '' : $this->show, 'by' => $this->by],
            fn (string $one): bool => $one !== '');
    }

    /**
     * @param  list<SheetLine>  $lines
     * @return list<SheetLine>
     *
     * @throws InvalidLevel
     */
    public function chosen(array $lines): array
    {
        $needle = mb_strtolower($this->find);
        $chosen = array_values(array_filter($lines, fn (SheetLine $one): bool => $this->shows($one)
            && ($needle === '' || str_contains(mb_strtolower($one->source->heading().' '.$one->source->name.' '.$one->source->folder),
                $needle))));
        $key = fn (SheetLine $one): mixed => match ($this->by) {
            'name' => mb_strtolower($one->source->heading()),
            'folder' => mb_strtolower($one->source->folder.'/'.$one->source->heading()),
            'length' => -($one->source->seconds ?? 0.0),
            'size' => -$one->bytes(),
            default => 0,
        };
        if ($this->by !== '') {
            usort($chosen, fn (SheetLine $one, SheetLine $other): int => [$key($one), $one->line->position] <=> [$key($other),
                $other->line->position]);
        }

        return $chosen;
    }

    /** @throws InvalidLevel */
    private function shows(SheetLine $one): bool
    {
        return match ($this->show) {
            'marked' => $one->line->marked,
            'stopped' => in_array($one->severity(), ['stop', 'warn'], true),
            'changed' => $one->line->spec !== null,
            'remade' => $one->first()->plan?->isKept() === false,
            'kept' => $one->first()->plan?->isKept() === true,
            default => true,
        };
    }
}
