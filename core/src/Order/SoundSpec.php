<?php

declare(strict_types=1);

namespace Octavox\Core\Order;

use Octavox\Core\Codec\RateControl;
use Octavox\Core\Codec\RateMode;
use Octavox\Core\Codec\StereoCoding;
use Octavox\Core\Copying;
use Octavox\Core\Sound\ChannelMap;
use Octavox\Core\Sound\LevelTarget;
use Octavox\Core\Sound\TimePosition;

/** What is asked of one sound: every part that is null is left to the source, or to the spec that this one lies over. */
final readonly class SoundSpec
{
    use Copying;

    private const FIELDS = [
        'tracks', 'codec', 'rate_control', 'rate', 'bit_depth', 'layout', 'labels', 'pieces', 'separate', 'exact', 'fade_in', 'fade_out',
        'level', 'together', 'stereo', 'checksums', 'compression', 'dither',
        'de_emphasis',
    ];

    private const MOST_KBPS = 100_000;

    private const MOST_HERTZ = 10_000_000;

    /**
     * @param  ?string  $tracks  as {@see TrackSelection::parse()} reads it
     * @param  ?string  $codec  beside a picture: name of the sound format that it becomes; `keep` only keeps
     * @param  ?int  $rate  Hz
     * @param  ?int  $bitDepth  bits of one sample
     * @param  ?string  $layout  as {@see ChannelMap::parse()} reads it
     * @param  ?list<string>  $labels  of the channels that come in
     * @param  ?string  $pieces  begin and end of each, separated by a hyphen, pieces separated by commas, times as {@see
     *          TimePosition::parse()} reads them; `chapters`; `chapters:without-gaps`; `silences`
     * @param  ?bool  $separate  whether each piece becomes a result of its own
     * @param  ?bool  $exact  whether a piece is rather encoded anew than moved to frame borders
     * @param  ?string  $fadeIn  a time
     * @param  ?string  $fadeOut  a time
     * @param  ?string  $level  as {@see LevelTarget::parse()} reads it; empty leaves the level whatever lies beneath
     * @param  ?bool  $together  whether all sounds of an order get one gain, so that their balance stays
     * @param  ?bool  $checksums  whether frames carry sums by which damage is noticed
     * @param  ?int  $compression  level of the codec's own scale
     * @param  ?bool  $dither  false rounds plainly where bits are lost; else they are dithered
     * @param  ?bool  $deEmphasis  whether the raised treble of tracks with pre-emphasis is taken down again
     * @param  list<string>  $left  fields that are left to the source whatever lies beneath; in JSON they are null
     */
    public function __construct(
        public ?string $tracks = null,
        public ?string $codec = null,
        public ?RateControl $rateControl = null,
        public ?int $rate = null,
        public ?int $bitDepth = null,
        public ?string $layout = null,
        public ?array $labels = null,
        public ?string $pieces = null,
        public ?bool $separate = null,
        public ?bool $exact = null,
        public ?string $fadeIn = null,
        public ?string $fadeOut = null,
        public ?string $level = null,
        public ?bool $together = null,
        public ?StereoCoding $stereo = null,
        public ?bool $checksums = null,
        public ?int $compression = null,
        public ?bool $dither = null,
        public ?bool $deEmphasis = null,
        public array $left = [],
    ) {}

    /** What this says, and where it says nothing what the other says. */
    public function over(self $beneath): self
    {
        $said = array_filter($this->fields(), fn (mixed $value): bool => $value !== null);
        $left = array_values(array_unique([...$this->left, ...array_diff($beneath->left, array_keys($said))]));
        $own = [];
        foreach (array_keys($this->fields()) as $field) {
            $own[self::property($field)] = $said[$field] ?? (in_array($field, $left, true) ? null : $beneath->{self::property($field)});
        }

        return $beneath->copy([...$own, 'left' => $left]);
    }

    /** What must lie over another to be this: what both say alike is left out, and what only the other says is left to the source. */
    public function since(self $other): self
    {
        $changes = $left = [];
        foreach ($this->fields() as $field => $value) {
            $same = $value == $other->{self::property($field)};
            $changes[self::property($field)] = $same ? null : $value;
            if (! $same && $value === null) {
                $left[] = $field;
            }
        }

        return $this->copy([...$changes, 'left' => $left]);
    }

    /** @return list<string> names of the fields that something is said of, be it that they are left to the source */
    public function said(): array
    {
        return array_keys(array_filter($this->fields(), fn (mixed $value, string $field): bool => $value !== null
            || in_array($field, $this->left, true), ARRAY_FILTER_USE_BOTH));
    }

    /** The same without what is said of some fields. */
    public function without(string ...$fields): self
    {
        $gone = array_fill_keys(array_map(self::property(...), array_intersect($fields, self::FIELDS)), null);

        return $this->copy([...$gone, 'left' => array_values(array_diff($this->left, $fields))]);
    }

    /** The same with other parts; a part that is given as null is no longer said. */
    public function with(mixed ...$parts): self
    {
        return $this->copy($parts);
    }

    public function isEmpty(): bool
    {
        return $this->said() === [];
    }

    /** @return array<string, mixed> only what is said */
    public function toArray(): array
    {
        $values = array_intersect_key($this->fields(), array_flip($this->said()));
        if ($this->stereo !== null) {
            $values['stereo'] = $this->stereo->value;
        }
        if ($this->rateControl !== null) {
            $values['rate_control'] = self::rateControl($this->rateControl);
        }

        return $values;
    }

    /**
     * @param  array<array-key, mixed>  $document  what {@see self::toArray()} gave
     *
     * @throws SpecInvalid
     */
    public static function fromArray(array $document, string $within = ''): self
    {
        $fields = new SpecFields($document, self::FIELDS, $within);

        return new self(
            $fields->text('tracks', 200), $fields->text('codec', 40), self::readRateControl($fields, $within),
            $fields->number('rate', 1, self::MOST_HERTZ), $fields->number('bit_depth', 1, 64),
            $fields->text('layout'), $fields->texts('labels'), $fields->text('pieces', 20_000), $fields->bool('separate'),
            $fields->bool('exact'),
            $fields->text('fade_in', 40), $fields->text('fade_out', 40), $fields->text('level', 80), $fields->bool('together'),
            $fields->choice('stereo', StereoCoding::class), $fields->bool('checksums'), $fields->number('compression', 0, 10),
            $fields->bool('dither'), $fields->bool('de_emphasis'),
            array_values(array_filter(self::FIELDS, fn (string $field): bool => array_key_exists($field, $document)
                && $document[$field] === null)),
        );
    }

    /** @return array<string, mixed> values by the names that fields have in JSON */
    private function fields(): array
    {
        $values = get_object_vars($this);
        unset($values['left']);

        return array_combine(self::FIELDS, array_values($values));
    }

    private static function property(string $field): string
    {
        return lcfirst(str_replace('_', '', ucwords($field, '_')));
    }

    /** @return array<string, mixed> */
    private static function rateControl(RateControl $rateControl): array
    {
        return $rateControl->quality !== null ? ['mode' => 'variable', 'quality' => $rateControl->quality]
            : array_filter([
                'mode' => $rateControl->exact ? $rateControl->mode->value ?? 'exact' : 'nearest', 'kbps' => $rateControl->kbps,
                'held' => $rateControl->exact ? null : $rateControl->mode?->value,
            ], fn (mixed $value): bool => $value !== null);
    }

    /** @throws SpecInvalid */
    private static function readRateControl(SpecFields $fields, string $within): ?RateControl
    {
        $document = $fields->map('rate_control');
        if ($document === null) {
            return null;
        }
        $own = new SpecFields($document, ['mode', 'kbps', 'quality', 'held'], $within.'rate_control.');
        $kbps = $own->number('kbps', 1, self::MOST_KBPS);
        $quality = $own->number('quality', 0, 9);

        return match ([$own->text('mode'), $kbps === null, $quality === null]) {
            ['exact', false, true] => RateControl::exactly((int) $kbps),
            ['constant', false, true] => RateControl::exactly((int) $kbps)->held(RateMode::Constant),
            ['average', false, true] => RateControl::exactly((int) $kbps)->held(RateMode::Average),
            ['nearest', false, true] => RateControl::near((int) $kbps)->held($own->choice('held', RateMode::class)),
            ['variable', true, false] => RateControl::variable((int) $quality),
            default => throw $fields->wrong('rate_control', 'exact, constant, average or nearest with kbps, or variable with quality'),
        };
    }
}
