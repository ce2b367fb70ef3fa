<?php

declare(strict_types=1);

namespace App\Orders\Values;

use App\Files\Pictures;
use App\Lists\Humanize;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Codec\RateMode;
use Octavox\Core\Codec\StereoCoding;
use Octavox\Core\Container\Fidelity;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Container\Video\VideoOutputFormat;
use Octavox\Core\Container\Video\VideoOutputs;
use Octavox\Core\Name\Signs;
use Octavox\Core\Order\IfExists;
use Octavox\Core\Order\IfRight;
use Octavox\Core\Order\Length;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Order\PictureChoice;
use Octavox\Core\Order\Quality;
use Octavox\Core\Order\SoundSpec;
use Octavox\Core\Order\SpecTable;
use Octavox\Core\Plan\PlanWords;
use Octavox\Core\Sound\ChannelMap;
use Octavox\Core\Sound\InvalidLevel;
use Octavox\Core\Sound\LevelKind;
use Octavox\Core\Sound\LevelTarget;
use Octavox\Core\Tag\Broadcast;

/** The fields in which a spec is filled in ↔ the spec; whatever is not understood leaves what was there. */
final readonly class SpecForm
{
    public const RATES = [8000, 11_025, 12_000, 16_000, 22_050, 24_000, 32_000, 44_100, 48_000, 88_200, 96_000, 176_400, 192_000];

    public const USUAL_LEVELS = ['gain' => '3', 'peak' => '-1', 'rms' => '-20', 'lufs' => '-16'];

    /** Sound that a video can be given instead of its own. */
    public const VIDEO_SOUNDS = ['wav', 'aac', 'alac', 'flac', 'mp3', 'opus', 'vorbis'];

    private const USUAL_NAME = '{stem}';

    private const USUAL_LENGTH = '0:30';

    /** What can be said in Broadcast WAV, by the name of its field. */
    public const BROADCAST = ['broadcast_description' => 'description', 'broadcast_originator' => 'originator',
        'broadcast_reference' => 'reference', 'broadcast_date' => 'date', 'broadcast_time' => 'time'];

    /** The fields of the form that fill in a field of a spec, where they are not called the same. */
    private const FILLED_BY = ['container' => ['format'], 'picture' => ['format'], 'codec' => ['sound'], 'rate_control' => ['quality',
        'held'],
        'bit_depth' => ['bits'], 'separate' => ['apart'], 'tracks' => ['track'], 'if_exists' => ['existing'], 'if_right' => ['right'],
        'length' => ['length', 'length_time'], 'level' => ['level', 'level_kind', 'level_value', 'level_ceiling'],
        'broadcast' => ['broadcast', 'broadcast_description', 'broadcast_originator', 'broadcast_reference', 'broadcast_date',
            'broadcast_time']];

    /** What is filled in elsewhere. */
    private const NOT_HERE = ['sounds', 'tags', 'place'];

    private function __construct(public OutputSpec $spec) {}

    public static function of(OutputSpec $spec): self
    {
        return new self($spec);
    }

    /**
     * The spec with some fields filled in anew.
     *
     * @param  array<array-key, mixed>  $input  by the names of the fields; those that are not given stay as they are
     * @param  bool  $hasFormat  whether a format must be chosen; else a destination chooses it where nobody does
     */
    public function filled(array $input, bool $hasFormat = true): self
    {
        $input = array_intersect_key($input, self::fields());
        if ($input === []) {
            return $this;
        }
        $isLevel = array_intersect(array_keys($input), ['level', 'level_kind', 'level_value', 'level_ceiling']) !== [];
        [$kind, $value, $ceiling] = $this->levelFields();
        $stays = $isLevel && ! isset($input['level']) ? ['level_kind' => $kind, 'level_value' => isset($input['level_kind'])
            && $input['level_kind'] !== $kind ? '' : $value, 'level_ceiling' => $ceiling, 'level' => ''] : [];
        if (isset($input['length_time']) && ! isset($input['length'])) {
            $input['length'] = 'time';
        }
        $input += $stays + $this->query();

        return new self($this->read($input, $hasFormat));
    }

    /**
     * @param  array<array-key, mixed>  $input
     * @return list<string> names of the parts of a spec that the fields among it are for
     */
    public static function meant(array $input): array
    {
        return array_values(array_unique(array_merge([], ...array_values(array_intersect_key(self::fields(), $input)))));
    }

    /** @return array<string, list<string>> the fields of a spec that each field of the form is for */
    private static function fields(): array
    {
        $fields = [];
        $names = [...SpecTable::names(SpecTable::output()), ...SpecTable::names(SpecTable::sound())];
        foreach (array_diff($names, self::NOT_HERE) as $name) {
            foreach (self::FILLED_BY[$name] ?? [$name] as $field) {
                $fields[$field][] = $name;
            }
        }

        return $fields;
    }

    /** @param  array<array-key, mixed>  $input */
    private function read(array $input, bool $hasFormat): OutputSpec
    {
        $text = fn (string $name): string => is_scalar($input[$name] ?? null) ? trim(mb_scrub((string) $input[$name])) : '';
        $number = fn (string $name, array $possible): ?int => in_array((int) $text($name), $possible, true) ? (int) $text($name) : null;
        $is = fn (string $name): ?bool => $text($name) === '1' ? true : null;
        $limited = fn (string $name, int $most): ?string => $text($name) === '' ? null : mb_substr($text($name), 0, $most);
        $container = Outputs::named($text('format')) !== null || VideoOutputs::named($text('format')) !== null ? $text('format')
            : ($hasFormat ? 'wav' : null);
        $video = VideoOutputs::named((string) $container);
        $codec = $video !== null && in_array($text('sound'), self::VIDEO_SOUNDS, true) ? $text('sound') : null;
        $encoder = self::encoderOf((string) $container, $codec);
        $isLayout = isset(ChannelMap::WORDS[$text('layout')]) || preg_match('/^[0-9@.,+\-\/ ]{1,300}$/', $text('layout')) === 1;
        $labels = $limited('labels', 300);
        $pieces = preg_match('/^[0-9a-z:.,#\- ]{1,12000}$/', $text('pieces')) === 1 ? $text('pieces') : null;
        $sound = new SoundSpec(
            tracks: preg_match('/^(all|joined|\d{1,3}|[a-z]{3})$/', $text('track')) === 1 ? $text('track') : null,
            codec: $codec,
            rateControl: $container === null ? null : self::rateControlOf($text('quality'), $encoder)
                ?->held(self::heldOf($text('held'), $encoder)),
            rate: $number('rate', self::ratesOf($encoder)),
            bitDepth: $number('bits', $encoder->capabilities()->bitDepths),
            layout: $isLayout && $text('layout') !== 'asis' ? $text('layout') : null,
            labels: $labels === null ? null : explode(',', $labels),
            pieces: $pieces,
            separate: $is('apart'),
            exact: $is('exact'),
            fadeIn: $limited('fade_in', 20),
            fadeOut: $limited('fade_out', 20),
            level: self::levelOf($text('level_kind'), $text('level_value'), $text('level_ceiling'), $text('level')),
            together: $is('together'),
            stereo: $encoder->capabilities()->stereoCoding ? StereoCoding::tryFrom($text('stereo')) : null,
            checksums: $encoder->capabilities()->checksums ? $is('checksums') : null,
            compression: $text('compression') === '' ? null : $number('compression', $encoder->capabilities()->compression),
            dither: $text('dither') === 'off' && $encoder->capabilities()->bitDepths !== [] ? false : null,
            deEmphasis: $is('de_emphasis'),
        );
        $length = $text('length') !== 'time' ? Length::tryFrom($text('length'))
            : Length::tryFrom($text('length_time') === '' ? self::USUAL_LENGTH : $text('length_time')) ?? $this->spec->length;
        $more = array_slice($this->spec->sounds, 1);

        return new OutputSpec(
            $container, $this->picture($video),
            $sound->isEmpty() && $more === [] ? [] : [$sound, ...$more], $length?->isOfSound() === true || $video !== null ? null : $length,
            $this->spec->tags, $text('name') === self::USUAL_NAME ? null : $limited('name', 300), $this->spec->place,
            IfExists::tryFrom($text('existing')), IfRight::tryFrom($text('right')), Signs::tryFrom($text('name_signs')),
            Signs::tryFrom($text('tag_signs')), $this->cover($text('cover')),
            $video === null && $encoder->capabilities()->holdsBroadcast && $text('broadcast') === '1' ? $this->broadcast($text) : null,
        );
    }

    /** What `none`, or the name of a picture that was brought in, says; anything else leaves the source's own. */
    private function cover(string $word): ?string
    {
        return $word === 'none' ? '' : ($word === 'kept' ? $this->spec->cover : Pictures::path($word));
    }

    /** @param  \Closure(string): string  $text */
    private function broadcast(\Closure $text): Broadcast
    {
        $said = $this->spec->broadcast?->toArray() ?? [];
        foreach (self::BROADCAST as $name => $field) {
            // What the field cannot hold leaves what was there.
            $said[$field] = Broadcast::holds($field, $text($name)) ? $text($name) : $said[$field] ?? '';
        }

        return Broadcast::fromArray(array_filter($said, fn (string $value): bool => $value !== ''));
    }

    /** What was said of the picture, in words that suit another format. */
    private function picture(?VideoOutputFormat $video): ?PictureChoice
    {
        return match ([$this->spec->picture, $video === null]) {
            [PictureChoice::Keep, true] => PictureChoice::Leave,
            [PictureChoice::Leave, false] => PictureChoice::Keep,
            default => $this->spec->picture,
        };
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

    public function ifRight(): IfRight
    {
        return $this->spec->ifRight ?? IfRight::Copy;
    }

    public function ifExists(): IfExists
    {
        return $this->spec->ifExists ?? IfExists::Number;
    }

    public function length(): Length
    {
        return $this->spec->length ?? Length::sound();
    }

    /** What the choice of quality is set to: a plain name, or `kbps:192`, or `variable:2`. */
    public function quality(): string
    {
        $rateControl = $this->sound()->rateControl;

        return Quality::of($rateControl)->value
            ?? ($rateControl?->quality !== null ? 'variable:'.$rateControl->quality : 'kbps:'.$rateControl?->kbps);
    }

    /** The plain name of the quality; null where it is set by number. */
    public function plainQuality(): ?Quality
    {
        return Quality::of($this->sound()->rateControl);
    }

    public function qualityLabel(): string
    {
        $rateControl = $this->sound()->rateControl;

        $plain = $this->plainQuality();

        return match (true) {
            $plain !== null => mb_strtolower($plain->label()),
            $rateControl?->quality !== null => 'variable rate '.$rateControl->quality,
            default => $rateControl?->kbps.' kbit/s',
        }.match ($rateControl?->mode) {
            null => '',
            RateMode::Constant => ', constant',
            RateMode::Average => ' on average',
        };
    }

    /** @return array<string, string> qualities by number, by the value of the choice */
    public function numbers(): array
    {
        $capabilities = $this->encoder()->capabilities();
        $numbers = [];
        foreach ($capabilities->kbps as $kbps) {
            $numbers['kbps:'.$kbps] = $kbps.' kbit/s';
        }
        foreach ($capabilities->variable ? range(0, 9) : [] as $quality) {
            $numbers['variable:'.$quality] = 'variable, '.$quality.($quality === 0 ? ' (finest)' : ($quality === 9 ? ' (smallest)' : ''));
        }
        $own = $this->quality();

        return str_starts_with($own, 'kbps:') ? $numbers + [$own => substr($own, 5).' kbit/s'] : $numbers;
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

    /** @return array<string, string> the fields as they are filled in; what is the first choice is left out */
    public function query(): array
    {
        $sound = $this->sound();

        return array_filter([
            'format' => $this->format(),
            'sound' => (string) $sound->codec,
            'quality' => $this->hasQuality() && $this->plainQuality() !== Quality::Least ? $this->quality() : '',
            'rate' => (string) $sound->rate,
            'bits' => (string) $sound->bitDepth,
            'layout' => (string) $sound->layout,
            'labels' => $this->labels(),
            'pieces' => (string) $sound->pieces,
            'apart' => $sound->separate === true ? '1' : '',
            'exact' => $sound->exact === true ? '1' : '',
            'fade_in' => (string) $sound->fadeIn,
            'fade_out' => (string) $sound->fadeOut,
            'level' => (string) $sound->level,
            'together' => $sound->together === true ? '1' : '',
            'held' => (string) $sound->rateControl?->mode?->value,
            'stereo' => (string) $sound->stereo?->value,
            'checksums' => $sound->checksums === true ? '1' : '',
            'compression' => (string) $sound->compression,
            'dither' => $sound->dither === false ? 'off' : '',
            'de_emphasis' => $sound->deEmphasis === true ? '1' : '',
            'cover' => $this->spec->cover === null ? ''
                : ($this->spec->cover === '' ? 'none' : Pictures::name($this->spec->cover) ?? 'kept'),
            'broadcast' => $this->spec->broadcast === null ? '' : '1',
            ...array_map(fn (string $field): string => $this->spec->broadcast?->toArray()[$field] ?? '', self::BROADCAST),
            'track' => (string) $sound->tracks,
            'length' => (string) $this->spec->length?->value,
            'name' => (string) $this->spec->name,
            'existing' => (string) $this->spec->ifExists?->value,
            'right' => (string) $this->spec->ifRight?->value,
            'name_signs' => (string) $this->spec->nameSigns?->value,
            'tag_signs' => (string) $this->spec->tagSigns?->value,
        ], fn (string $value): bool => $value !== '');
    }

    public function summary(): string
    {
        $sound = $this->sound();
        $quality = $this->hasQuality() && $this->plainQuality() !== Quality::Least ? $this->qualityLabel() : '';
        $level = $this->levelTarget();

        return implode(', ', array_filter([
            $this->spec->container === null ? '' : $this->video()?->label() ?? $this->encoder()->label(),
            $sound->codec === null ? '' : 'sound as '.$this->encoder()->label(),
            $quality !== '' ? $quality : ($sound->bitDepth === null ? '' : $sound->bitDepth.'-bit'),
            $sound->rate === null ? '' : Humanize::rate($sound->rate),
            $sound->layout === null ? '' : (isset(ChannelMap::WORDS[$sound->layout]) ? mb_strtolower(ChannelMap::WORDS[$sound->layout][0])
                : 'channels '.$sound->layout),
            in_array($sound->pieces, [null, ''], true) ? '' : 'cut',
            $level === null ? '' : PlanWords::level($level),
            match ($sound->tracks) {
                null => '',
                'all' => 'all sound tracks',
                'joined' => 'all sound tracks as one',
                default => 'track '.$sound->tracks,
            },
            match (true) {
                $this->length()->isOfPicture() => 'as long as the picture',
                $this->length()->isTime() => $this->length()->value.' long',
                default => '',
            },
        ]));
    }

    private static function rateControlOf(string $quality, OutputFormat $encoder): ?RateControl
    {
        $capabilities = $encoder->capabilities();
        if (preg_match('/^kbps:(\d{1,5})$/', $quality, $number) === 1) {
            return $capabilities->kbps === [] || (int) $number[1] === 0 ? null : RateControl::near((int) $number[1]);
        }
        if (preg_match('/^variable:(\d)$/', $quality, $number) === 1) {
            return $capabilities->variable ? RateControl::variable((int) $number[1]) : null;
        }
        $named = Quality::tryFrom($quality);

        return $named !== null && $capabilities->kbps !== [] && in_array($named, Quality::offered($capabilities), true)
            ? $named->rateControl() : null;
    }

    private static function heldOf(string $held, OutputFormat $encoder): ?RateMode
    {
        $mode = RateMode::tryFrom($held);

        return $mode !== null && in_array($mode, $encoder->capabilities()->rateModes, true) ? $mode : null;
    }

    /** From the fields, or from the whole as it is written. */
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
