<?php

declare(strict_types=1);

namespace Octavox\Core\Order;

use Octavox\Core\Codec\RateControl;
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
        'level', 'together',
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
     * @param  ?string  $pieces  begin and end of each, parted by a hyphen, pieces parted by commas, times as {@see
     *          TimePosition::parse()} reads them; `chapters`; `silences`
     * @param  ?bool  $separate  whether each piece becomes a result of its own
     * @param  ?bool  $exact  whether a piece is rather encoded anew than moved to frame borders
     * @param  ?string  $fadeIn  a time
     * @param  ?string  $fadeOut  a time
     * @param  ?string  $level  as {@see LevelTarget::parse()} reads it; empty leaves the level whatever lies beneath
     * @param  ?bool  $together  whether all sounds of an order get one gain, so that their balance stays
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
    ) {}

    /** What this says, and where it says nothing what the other says. */
    public function over(self $beneath): self
    {
        return $beneath->copy(array_filter(get_object_vars($this), fn (mixed $value): bool => $value !== null));
    }

    /** The same with other parts; a part that is given as null is no longer said. */
    public function with(mixed ...$parts): self
    {
        return $this->copy($parts);
    }

    public function isEmpty(): bool
    {
        return array_filter($this->values(), fn (mixed $value): bool => $value !== null) === [];
    }

    /** @return array<string, mixed> only what is said */
    public function toArray(): array
    {
        $values = array_combine(self::FIELDS, $this->values());
        $values['rate_control'] = $this->rateControl === null ? null : self::rateControl($this->rateControl);

        return array_filter($values, fn (mixed $value): bool => $value !== null);
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
        );
    }

    /** @return list<mixed> in the order of the fields */
    private function values(): array
    {
        return array_values(get_object_vars($this));
    }

    /** @return array<string, mixed> */
    private static function rateControl(RateControl $rateControl): array
    {
        return $rateControl->quality !== null ? ['mode' => 'variable', 'quality' => $rateControl->quality]
            : ['mode' => $rateControl->exact ? 'constant' : 'nearest', 'kbps' => $rateControl->kbps];
    }

    private static function readRateControl(SpecFields $fields, string $within): ?RateControl
    {
        $document = $fields->map('rate_control');
        if ($document === null) {
            return null;
        }
        $own = new SpecFields($document, ['mode', 'kbps', 'quality'], $within.'rate_control.');
        $kbps = $own->number('kbps', 1, self::MOST_KBPS);
        $quality = $own->number('quality', 0, 9);

        return match ([$own->text('mode'), $kbps === null, $quality === null]) {
            ['constant', false, true] => RateControl::constant((int) $kbps),
            ['nearest', false, true] => RateControl::near((int) $kbps),
            ['variable', true, false] => RateControl::variable((int) $quality),
            default => throw $fields->wrong('rate_control', 'constant or nearest with kbps, or variable with quality'),
        };
    }
}
