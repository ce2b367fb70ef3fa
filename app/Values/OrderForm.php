<?php

declare(strict_types=1);

namespace App\Values;

use Octavox\Core\Container\Fidelity;
use Octavox\Core\Container\Film\FilmFormat;
use Octavox\Core\Container\Film\Films;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Name\NamePattern;
use Octavox\Core\Plan\Existing;
use Octavox\Core\Plan\FilmWish;
use Octavox\Core\Plan\Length;
use Octavox\Core\Plan\Wish;
use Octavox\Core\Sound\Layout;

/** What somebody filled in on the order sheet; whatever is not understood falls back to its first choice. */
final readonly class OrderForm
{
    public const RATES = [8000, 16000, 22050, 32000, 44100, 48000, 96000];

    /** Sound that a film can be given instead of its own. */
    public const FILM_SOUNDS = ['wav', 'aac', 'alac', 'flac', 'mp3', 'opus', 'vorbis'];

    /**
     * @param  list<int>  $sources
     * @param  string  $track  empty for the first (of a film: all), `all`, a number, or a language
     * @param  string  $sound  with films: empty keeps what can be kept, else the format of the sound
     */
    private function __construct(
        public array $sources,
        public string $format,
        public Quality $quality,
        public ?int $rate,
        public ?int $bits,
        public string $layout,
        public string $track,
        public string $sound,
        public Length $length,
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
        $format = $text('format');
        $known = Outputs::named($format) !== null || Films::named($format) !== null;
        $film = Films::named($format);
        $sound = $film !== null && in_array($text('sound'), self::FILM_SOUNDS, true) ? $text('sound') : '';
        $encoder = Outputs::named($sound !== '' ? $sound : $format) ?? $film?->encodes() ?? Outputs::all()[0];
        $quality = Quality::tryFrom($text('quality')) ?? Quality::Least;

        return new self(
            array_values(array_unique(array_filter($sources, fn (int $id): bool => $id > 0))),
            $known ? $format : 'wav',
            in_array($quality, Quality::offered($encoder), true) ? $quality : Quality::Least,
            $number('rate', self::ratesOf($encoder)),
            $number('bits', $encoder->abilities()->widths),
            in_array($text('layout'), ['mono', 'stereo'], true) ? $text('layout') : 'asis',
            preg_match('/^(all|\d{1,3}|[a-z]{3})$/', $text('track')) === 1 ? $text('track') : '',
            $sound,
            Length::tryFrom($text('length')) ?? Length::Sound,
            $pattern === '' ? '{stem}' : mb_substr($pattern, 0, 200),
            Existing::tryFrom($text('existing')) ?? Existing::Number,
        );
    }

    public function film(): ?FilmFormat
    {
        return Films::named($this->format);
    }

    /** The format whose abilities the sheet offers: of a film that of its sound. */
    public function encoder(): OutputFormat
    {
        return Outputs::named($this->sound !== '' ? $this->sound : $this->format) ?? $this->film()?->encodes() ?? Outputs::all()[0];
    }

    /** @return list<int> Hz */
    public function rates(): array
    {
        return self::ratesOf($this->encoder());
    }

    public function hasQuality(): bool
    {
        return $this->encoder()->abilities()->kbps !== [];
    }

    /** @param  ?int  $track  its number */
    public function wish(string $folder, ?int $track): Wish
    {
        return new Wish($this->encoder(), $this->quality->setting(), $folder, $this->rate, $this->bits, $this->chosenLayout(), $track, new NamePattern($this->pattern), $this->existing, $this->length);
    }

    /** @param  ?list<int>  $tracks  numbers; null for all */
    public function filmWish(FilmFormat $film, string $folder, ?array $tracks): FilmWish
    {
        return new FilmWish($film, $this->sound === '' ? null : $this->encoder(), $this->quality->setting(), $folder, $this->rate, $this->bits, $this->chosenLayout(), $tracks, new NamePattern($this->pattern), $this->existing);
    }

    /** @return array<string, string> what the page's address keeps; what is the first choice is left out */
    public function query(): array
    {
        return array_filter([
            'sources' => implode(',', $this->sources),
            'format' => $this->format,
            'sound' => $this->sound,
            'quality' => $this->hasQuality() && $this->quality !== Quality::Least ? $this->quality->value : '',
            'rate' => (string) $this->rate,
            'bits' => (string) $this->bits,
            'layout' => $this->layout === 'asis' ? '' : $this->layout,
            'track' => $this->track,
            'length' => $this->length === Length::Sound ? '' : $this->length->value,
            'name' => $this->pattern === '{stem}' ? '' : $this->pattern,
            'existing' => $this->existing === Existing::Number ? '' : $this->existing->value,
        ], fn (string $value): bool => $value !== '');
    }

    public function summary(): string
    {
        return implode(', ', array_filter([
            $this->film()?->label() ?? $this->encoder()->label(),
            $this->film() !== null && $this->sound !== '' ? 'sound as '.$this->encoder()->label() : '',
            $this->hasQuality() && $this->quality !== Quality::Least ? $this->quality->label() : ($this->bits === null ? '' : $this->bits.'-bit'),
            $this->rate === null ? '' : ($this->rate / 1000).' kHz',
            $this->layout === 'asis' ? '' : $this->layout,
            match (true) {
                $this->track === '' => '',
                $this->track === 'all' => 'all sound tracks',
                default => 'track '.$this->track,
            },
            $this->length === Length::Picture ? 'as long as the picture' : '',
        ]));
    }

    private function chosenLayout(): ?Layout
    {
        return match ($this->layout) {
            'mono' => Layout::mono(),
            'stereo' => Layout::stereo(),
            default => null,
        };
    }

    /** @return list<int> */
    private static function ratesOf(OutputFormat $format): array
    {
        $abilities = $format->abilities();
        if (! $abilities->makes) {
            return [];
        }

        return $abilities->rates === [] ? self::RATES : ($abilities->fidelity === Fidelity::Lossy ? $abilities->rates : array_values(array_intersect(self::RATES, $abilities->rates)));
    }
}
