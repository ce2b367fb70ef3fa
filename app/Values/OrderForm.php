<?php

declare(strict_types=1);

namespace App\Values;

use Octavox\Core\Container\Fidelity;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Container\Video\VideoOutputFormat;
use Octavox\Core\Container\Video\VideoOutputs;
use Octavox\Core\Name\NamePattern;
use Octavox\Core\Plan\Existing;
use Octavox\Core\Plan\FilmWish;
use Octavox\Core\Plan\Length;
use Octavox\Core\Plan\ShapingWish;
use Octavox\Core\Plan\Wish;
use Octavox\Core\Sound\ChannelMap;
use Octavox\Core\Sound\InvalidLevel;
use Octavox\Core\Sound\LevelKind;
use Octavox\Core\Sound\LevelTarget;

/** What somebody filled in on the order sheet; whatever is not understood falls back to its first choice. */
final readonly class OrderForm
{
    public const RATES = [8000, 16000, 22050, 32000, 44100, 48000, 96000];

    public const USUAL_LEVELS = ['gain' => '3', 'peak' => '-1', 'rms' => '-20', 'lufs' => '-16'];

    /** Sound that a film can be given instead of its own. */
    public const FILM_SOUNDS = ['wav', 'aac', 'alac', 'flac', 'mp3', 'opus', 'vorbis'];

    /**
     * @param  list<int>  $sources
     * @param  string  $track  empty for the first (of a film: all), `all`, a number, or a language
     * @param  string  $layout  a map of channels as the heart reads it
     * @param  string  $labels  of the channels that come in, parted by commas
     * @param  array<int, string>  $pieces  of each source that is cut, by its number
     * @param  bool  $apart  whether each piece becomes a file of its own
     * @param  bool  $exact  whether a piece is rather encoded anew than moved to frame borders
     * @param  string  $level  as the heart reads it, empty to leave it
     * @param  bool  $together  whether all get one gain
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
        public string $labels,
        public array $pieces,
        public bool $apart,
        public bool $exact,
        public string $fadeIn,
        public string $fadeOut,
        public string $level,
        public bool $together,
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
        $known = Outputs::named($format) !== null || VideoOutputs::named($format) !== null;
        $film = VideoOutputs::named($format);
        $sound = $film !== null && in_array($text('sound'), self::FILM_SOUNDS, true) ? $text('sound') : '';
        $encoder = Outputs::named($sound !== '' ? $sound : $format) ?? $film?->encodes() ?? Outputs::all()[0];
        $quality = Quality::tryFrom($text('quality')) ?? Quality::Least;

        return new self(
            array_values(array_unique(array_filter($sources, fn (int $id): bool => $id > 0))),
            $known ? $format : 'wav',
            in_array($quality, Quality::offered($encoder), true) ? $quality : Quality::Least,
            $number('rate', self::ratesOf($encoder)),
            $number('bits', $encoder->capabilities()->bitDepths),
            isset(ChannelMap::WORDS[$text('layout')]) || preg_match('/^[0-9@.,+\-\/ ]{1,300}$/', $text('layout')) === 1 ? trim($text('layout')) : 'asis',
            preg_match('/^(all|joined|\d{1,3}|[a-z]{3})$/', $text('track')) === 1 ? $text('track') : '',
            $sound,
            Length::tryFrom($text('length')) ?? Length::Sound,
            $pattern === '' ? '{stem}' : mb_substr($pattern, 0, 200),
            Existing::tryFrom($text('existing')) ?? Existing::Number,
            mb_substr(trim(mb_scrub($text('labels'))), 0, 300),
            self::piecesOf($text('pieces')),
            $text('apart') === '1',
            $text('exact') === '1',
            mb_substr(trim($text('fade_in')), 0, 20),
            mb_substr(trim($text('fade_out')), 0, 20),
            self::levelOf($text('level_kind'), $text('level_value'), $text('level_ceiling'), $text('level')),
            $text('together') === '1',
        );
    }

    /** @return array<int, string> */
    private static function piecesOf(string $text): array
    {
        $pieces = [];
        foreach (explode(';', mb_substr($text, 0, 20_000)) as $one) {
            if (preg_match('/^(\d{1,12}):([0-9a-z:.,#\- ]{1,12000})$/', $one, $parts) === 1) {
                $pieces[(int) $parts[1]] = $parts[2];
            }
        }

        return $pieces;
    }

    /** From the fields of the sheet, or from the address. */
    private static function levelOf(string $kind, string $value, string $ceiling, string $whole): string
    {
        $known = LevelKind::tryFrom($kind);
        if ($known === null) {
            return $kind === 'none' ? '' : mb_substr(trim($whole), 0, 40);
        }
        $value = str_replace(['−', ','], ['-', '.'], trim($value));

        return $known->value.':'.($value === '' ? self::USUAL_LEVELS[$known->value] : mb_substr($value, 0, 12)).(trim($ceiling) === '' || ! in_array($known, [LevelKind::Rms, LevelKind::Loudness], true) ? '' : ':'.mb_substr(str_replace(['−', ','], ['-', '.'], trim($ceiling)), 0, 12));
    }

    /** How this source is to be shaped; with one gain for all in place of the level where that is wished. */
    public function shaping(int $source, ?LevelTarget $together = null): ShapingWish
    {
        return new ShapingWish($this->layout, explode(',', $this->labels), $this->pieces[$source] ?? '', $this->apart, $this->fadeIn, $this->fadeOut, $together === null ? $this->level : (string) $together, $this->exact);
    }

    /** The level as it was chosen; null where it is left or cannot be read. */
    public function levelTarget(): ?LevelTarget
    {
        try {
            return $this->level === '' ? null : LevelTarget::parse($this->level);
        } catch (InvalidLevel) {
            return null;
        }
    }

    /** @return array{string, string, string} kind, value and ceiling as they stand in the fields */
    public function levelFields(): array
    {
        $parts = explode(':', $this->level) + ['', '', ''];

        return [LevelKind::tryFrom($parts[0]) === null ? 'none' : $parts[0], $parts[1], $parts[2]];
    }

    public function film(): ?VideoOutputFormat
    {
        return VideoOutputs::named($this->format);
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
        return $this->encoder()->capabilities()->kbps !== [];
    }

    /**
     * @param  ?int  $track  its number
     * @param  int  $source  number of the source on the list
     * @param  ?LevelTarget  $together  the one gain for all, where that is wished
     */
    public function wish(string $folder, ?int $track, int $source, ?LevelTarget $together = null): Wish
    {
        return new Wish($this->encoder(), $this->quality->setting(), $folder, $this->rate, $this->bits, null, $track, new NamePattern($this->pattern), $this->existing, $this->length, $this->shaping($source, $together));
    }

    /** @param  ?list<int>  $tracks  numbers; null for all */
    public function filmWish(VideoOutputFormat $film, string $folder, ?array $tracks, int $source, ?LevelTarget $together = null): FilmWish
    {
        return new FilmWish($film, $this->sound === '' ? null : $this->encoder(), $this->quality->setting(), $folder, $this->rate, $this->bits, null, $tracks, new NamePattern($this->pattern), $this->existing, $this->shaping($source, $together));
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
            'labels' => $this->labels,
            'pieces' => implode(';', array_map(fn (int $source, string $pieces): string => $source.':'.$pieces, array_keys($this->pieces), $this->pieces)),
            'apart' => $this->apart ? '1' : '',
            'exact' => $this->exact ? '1' : '',
            'fade_in' => $this->fadeIn,
            'fade_out' => $this->fadeOut,
            'level' => $this->level,
            'together' => $this->together ? '1' : '',
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
            $this->layout === 'asis' ? '' : (isset(ChannelMap::WORDS[$this->layout]) ? mb_strtolower(ChannelMap::WORDS[$this->layout][0]) : 'channels '.$this->layout),
            $this->pieces === [] ? '' : 'cut',
            $this->levelTarget()?->says() ?? '',
            match (true) {
                $this->track === '' => '',
                $this->track === 'all' => 'all sound tracks',
                $this->track === 'joined' => 'all sound tracks as one',
                default => 'track '.$this->track,
            },
            $this->length === Length::Picture ? 'as long as the picture' : '',
        ]));
    }

    /** @return list<int> */
    private static function ratesOf(OutputFormat $format): array
    {
        $capabilities = $format->capabilities();
        if (! $capabilities->makes) {
            return [];
        }

        return $capabilities->rates === [] ? self::RATES : ($capabilities->fidelity === Fidelity::Lossy ? $capabilities->rates : array_values(array_intersect(self::RATES, $capabilities->rates)));
    }
}
