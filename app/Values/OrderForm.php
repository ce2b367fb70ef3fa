<?php

declare(strict_types=1);

namespace App\Values;

use Octavox\Core\Codec\EncoderSetting;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Name\NamePattern;
use Octavox\Core\Plan\Existing;
use Octavox\Core\Plan\Wish;
use Octavox\Core\Sound\Layout;

/** What somebody filled in on the order sheet; whatever is not understood falls back to its first choice. */
final readonly class OrderForm
{
    public const RATES = [8000, 16000, 22050, 32000, 44100, 48000, 96000];

    public const WIDTHS = [8, 16, 24, 32];

    /** @param  list<int>  $sources */
    private function __construct(
        public array $sources,
        public string $format,
        public Quality $quality,
        public ?int $rate,
        public ?int $bits,
        public string $layout,
        public string $pattern,
        public Existing $existing,
    ) {
    }

    /** @param  array<array-key, mixed>  $input the query of the page */
    public static function fromInput(array $input): self
    {
        $text = fn (string $name): string => is_scalar($input[$name] ?? null) ? (string) $input[$name] : '';
        $number = fn (string $name, array $possible): ?int => in_array((int) $text($name), $possible, true) ? (int) $text($name) : null;
        $chosen = $input['sources'] ?? [];
        $chosen = is_array($chosen) ? $chosen : explode(',', is_scalar($chosen) ? (string) $chosen : '');
        $sources = array_map(fn (mixed $id): int => is_scalar($id) ? (int) $id : 0, $chosen);
        $pattern = trim(mb_scrub($text('name')));

        return new self(
            array_values(array_unique(array_filter($sources, fn (int $id): bool => $id > 0))),
            Outputs::named($text('format')) === null ? 'wav' : $text('format'),
            Quality::tryFrom($text('quality')) ?? Quality::Music,
            $number('rate', self::RATES),
            $number('bits', self::WIDTHS),
            in_array($text('layout'), ['mono', 'stereo'], true) ? $text('layout') : 'asis',
            $pattern === '' ? '{stem}' : mb_substr($pattern, 0, 200),
            Existing::tryFrom($text('existing')) ?? Existing::Number,
        );
    }

    public function wish(string $folder): Wish
    {
        return new Wish(
            Outputs::named($this->format) ?? Outputs::all()[0],
            $this->format === 'mp3' ? $this->quality->setting() : EncoderSetting::none(),
            $folder,
            $this->rate,
            $this->format === 'wav' ? $this->bits : null,
            match ($this->layout) {
                'mono' => Layout::mono(),
                'stereo' => Layout::stereo(),
                default => null,
            },
            null,
            new NamePattern($this->pattern),
            $this->existing,
        );
    }

    /** @return array<string, string> what the page's address keeps; what is the first choice is left out */
    public function query(): array
    {
        return array_filter([
            'sources' => implode(',', $this->sources),
            'format' => $this->format,
            'quality' => $this->format === 'mp3' ? $this->quality->value : '',
            'rate' => (string) $this->rate,
            'bits' => $this->format === 'wav' ? (string) $this->bits : '',
            'layout' => $this->layout === 'asis' ? '' : $this->layout,
            'name' => $this->pattern === '{stem}' ? '' : $this->pattern,
            'existing' => $this->existing === Existing::Number ? '' : $this->existing->value,
        ], fn (string $value): bool => $value !== '');
    }

    public function summary(): string
    {
        return implode(', ', array_filter([
            strtoupper($this->format),
            $this->format === 'mp3' ? $this->quality->label() : ($this->bits === null ? '' : $this->bits.'-bit'),
            $this->rate === null ? '' : ($this->rate / 1000).' kHz',
            $this->layout === 'asis' ? '' : $this->layout,
        ]));
    }
}
