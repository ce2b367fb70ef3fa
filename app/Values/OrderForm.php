<?php

declare(strict_types=1);

namespace App\Values;

use Octavox\Core\Container\Fidelity;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Container\Video\VideoOutputFormat;
use Octavox\Core\Container\Video\VideoOutputs;
use Octavox\Core\Order\IfExists;
use Octavox\Core\Order\Length;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Order\Quality;
use Octavox\Core\Order\SoundSpec;
use Octavox\Core\Plan\PlanWords;
use Octavox\Core\Sound\ChannelMap;
use Octavox\Core\Sound\InvalidLevel;
use Octavox\Core\Sound\LevelKind;
use Octavox\Core\Sound\LevelTarget;

/** The fields of the order sheet ↔ the sources and the spec they stand for; whatever is not understood falls back to its first choice. */
final readonly class OrderForm
{
    public const RATES = [8000, 16000, 22050, 32000, 44100, 48000, 96000];

    public const USUAL_LEVELS = ['gain' => '3', 'peak' => '-1', 'rms' => '-20', 'lufs' => '-16'];

    /** Sound that a video can be given instead of its own. */
    public const VIDEO_SOUNDS = ['wav', 'aac', 'alac', 'flac', 'mp3', 'opus', 'vorbis'];

    private const USUAL_NAME = '{stem}';

    /**
     * @param  list<int>  $sources
     * @param  OutputSpec  $spec  of all of them
     * @param  array<int, string>  $pieces  of each source that is cut, by its number
     */
    private function __construct(public array $sources, public OutputSpec $spec, public array $pieces) {}

    /** @param  array<array-key, mixed>  $input the query of the page */
    public static function fromInput(array $input): self
    {
        $text = fn (string $name): string => is_scalar($input[$name] ?? null) ? trim(mb_scrub((string) $input[$name])) : '';
        $number = fn (string $name, array $possible): ?int => in_array((int) $text($name), $possible, true) ? (int) $text($name) : null;
        $is = fn (string $name): ?bool => $text($name) === '1' ? true : null;
        $limited = fn (string $name, int $most): ?string => $text($name) === '' ? null : mb_substr($text($name), 0, $most);
        $container = Outputs::named($text('format')) !== null || VideoOutputs::named($text('format')) !== null ? $text('format') : 'wav';
        $video = VideoOutputs::named($container);
        $codec = $video !== null && in_array($text('sound'), self::VIDEO_SOUNDS, true) ? $text('sound') : null;
        $encoder = self::encoderOf($container, $codec);
        $quality = Quality::tryFrom($text('quality')) ?? Quality::Least;
        $isLayout = isset(ChannelMap::WORDS[$text('layout')]) || preg_match('/^[0-9@.,+\-\/ ]{1,300}$/', $text('layout')) === 1;
        $labels = $limited('labels', 300);
        $sound = new SoundSpec(
            tracks: preg_match('/^(all|joined|\d{1,3}|[a-z]{3})$/', $text('track')) === 1 ? $text('track') : null,
            codec: $codec,
            rateControl: in_array($quality, Quality::offered($encoder->capabilities()), true) ? $quality->rateControl() : null,
            rate: $number('rate', self::ratesOf($encoder)),
            bitDepth: $number('bits', $encoder->capabilities()->bitDepths),
            layout: $isLayout && $text('layout') !== 'asis' ? $text('layout') : null,
            labels: $labels === null ? null : explode(',', $labels),
            separate: $is('apart'),
            exact: $is('exact'),
            fadeIn: $limited('fade_in', 20),
            fadeOut: $limited('fade_out', 20),
            level: self::levelOf($text('level_kind'), $text('level_value'), $text('level_ceiling'), $text('level')),
            together: $is('together'),
        );
        $length = Length::tryFrom($text('length'));

        return new self(
            self::sourcesOf($input['sources'] ?? []),
            new OutputSpec(
                $container, null, $sound->isEmpty() ? [] : [$sound], $length === Length::Sound || $video !== null ? null : $length,
                name: $text('name') === self::USUAL_NAME ? null : $limited('name', 200), ifExists: IfExists::tryFrom($text('existing')),
            ),
            self::piecesOf(is_scalar($input['pieces'] ?? null) ? (string) $input['pieces'] : ''),
        );
    }

    /** The same with one source less. */
    public function without(int $source): self
    {
        return new self(array_values(array_diff($this->sources, [$source])), $this->spec, array_diff_key($this->pieces, [$source => '']));
    }

    /** What is asked of one source alone. */
    public function changes(int $source): OutputSpec
    {
        return isset($this->pieces[$source]) ? new OutputSpec(sounds: [new SoundSpec(pieces: $this->pieces[$source])]) : new OutputSpec;
    }

    public function sound(): SoundSpec
    {
        return $this->spec->sounds()[0];
    }

    public function format(): string
    {
        return (string) $this->spec->container;
    }

    public function name(): string
    {
        return $this->spec->name ?? self::USUAL_NAME;
    }

    public function labels(): string
    {
        return implode(',', $this->sound()->labels ?? []);
    }

    public function layout(): string
    {
        return $this->sound()->layout ?? 'asis';
    }

    public function ifExists(): IfExists
    {
        return $this->spec->ifExists ?? IfExists::Number;
    }

    public function length(): Length
    {
        return $this->spec->length ?? Length::Sound;
    }

    public function quality(): Quality
    {
        return Quality::of($this->sound()->rateControl) ?? Quality::Least;
    }

    /** The level as it was chosen; null where it is left or cannot be read. */
    public function levelTarget(): ?LevelTarget
    {
        try {
            $level = $this->sound()->level;

            return $level === null ? null : LevelTarget::parse($level);
        } catch (InvalidLevel) {
            return null;
        }
    }

    /** @return array{string, string, string} kind, value and ceiling as they stand in the fields */
    public function levelFields(): array
    {
        $parts = explode(':', (string) $this->sound()->level) + ['', '', ''];

        return [LevelKind::tryFrom($parts[0]) === null ? 'none' : $parts[0], $parts[1], $parts[2]];
    }

    public function video(): ?VideoOutputFormat
    {
        return VideoOutputs::named($this->format());
    }

    /** The format whose capabilities the sheet offers: of a video that of its sound. */
    public function encoder(): OutputFormat
    {
        return self::encoderOf($this->format(), $this->sound()->codec);
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

    /** @return array<string, string> what the page's address keeps; what is the first choice is left out */
    public function query(): array
    {
        $sound = $this->sound();

        return array_filter([
            'sources' => implode(',', $this->sources),
            'format' => $this->format(),
            'sound' => (string) $sound->codec,
            'quality' => $this->hasQuality() && $this->quality() !== Quality::Least ? $this->quality()->value : '',
            'rate' => (string) $sound->rate,
            'bits' => (string) $sound->bitDepth,
            'layout' => (string) $sound->layout,
            'labels' => $this->labels(),
            'pieces' => implode(';',
                array_map(fn (int $source, string $pieces): string => $source.':'.$pieces, array_keys($this->pieces), $this->pieces)),
            'apart' => $sound->separate === true ? '1' : '',
            'exact' => $sound->exact === true ? '1' : '',
            'fade_in' => (string) $sound->fadeIn,
            'fade_out' => (string) $sound->fadeOut,
            'level' => (string) $sound->level,
            'together' => $sound->together === true ? '1' : '',
            'track' => (string) $sound->tracks,
            'length' => (string) $this->spec->length?->value,
            'name' => (string) $this->spec->name,
            'existing' => $this->ifExists() === IfExists::Number ? '' : $this->ifExists()->value,
        ], fn (string $value): bool => $value !== '');
    }

    public function summary(): string
    {
        $sound = $this->sound();
        $hasNamed = $this->hasQuality() && $this->quality() !== Quality::Least;
        $level = $this->levelTarget();

        return implode(', ', array_filter([
            $this->video()?->label() ?? $this->encoder()->label(),
            $sound->codec === null ? '' : 'sound as '.$this->encoder()->label(),
            $hasNamed ? $this->quality()->label() : ($sound->bitDepth === null ? '' : $sound->bitDepth.'-bit'),
            $sound->rate === null ? '' : Humanize::rate($sound->rate),
            $sound->layout === null ? '' : (isset(ChannelMap::WORDS[$sound->layout]) ? mb_strtolower(ChannelMap::WORDS[$sound->layout][0])
                : 'channels '.$sound->layout),
            $this->pieces === [] ? '' : 'cut',
            $level === null ? '' : PlanWords::level($level),
            match ($sound->tracks) {
                null => '',
                'all' => 'all sound tracks',
                'joined' => 'all sound tracks as one',
                default => 'track '.$sound->tracks,
            },
            $this->length() === Length::Picture ? 'as long as the picture' : '',
        ]));
    }

    /** @return list<int> */
    private static function sourcesOf(mixed $chosen): array
    {
        $ids = is_array($chosen) ? $chosen : explode(',', is_scalar($chosen) ? (string) $chosen : '');
        $numbers = array_map(fn (mixed $id): int => is_scalar($id) ? (int) $id : 0, $ids);

        return array_values(array_unique(array_filter($numbers, fn (int $id): bool => $id > 0)));
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
    private static function levelOf(string $kind, string $value, string $ceiling, string $whole): ?string
    {
        $known = LevelKind::tryFrom($kind);
        if ($known === null) {
            return $kind === 'none' || $whole === '' ? null : mb_substr($whole, 0, 40);
        }
        $number = fn (string $text): string => mb_substr(str_replace(['−', ','], ['-', '.'], trim($text)), 0, 12);
        $hasCeiling = in_array($known, [LevelKind::Rms, LevelKind::Loudness], true) && $number($ceiling) !== '';

        return $known->value.':'.($number($value) === '' ? self::USUAL_LEVELS[$known->value] : $number($value)).($hasCeiling
            ? ':'.$number($ceiling) : '');
    }

    private static function encoderOf(string $container, ?string $codec): OutputFormat
    {
        return Outputs::named($codec ?? $container) ?? VideoOutputs::named($container)?->encodes() ?? Outputs::all()[0];
    }

    /** @return list<int> */
    private static function ratesOf(OutputFormat $format): array
    {
        $capabilities = $format->capabilities();
        if (! $capabilities->makes || $capabilities->rates === []) {
            return $capabilities->makes ? self::RATES : [];
        }

        return $capabilities->fidelity === Fidelity::Lossy ? $capabilities->rates
            : array_values(array_intersect(self::RATES, $capabilities->rates));
    }
}
