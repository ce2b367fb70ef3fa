<?php

declare(strict_types=1);

namespace Octavox\Core\Order;

use Octavox\Core\Codec\RateControl;
use Octavox\Core\Codec\StereoCoding;
use Octavox\Core\Copying;
use Octavox\Core\Sound\ChannelMap;
use Octavox\Core\Sound\LevelTarget;
use Octavox\Core\Sound\TimePosition;

/** What is asked of one sound: every part that is null is left to the source, or to the spec that this one lies over. */
final readonly class SoundSpec
{
    use Copying;

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
        $own = [];
        foreach (SpecTable::sound() as $field) {
            $isLeft = in_array($field->name, $this->left, true);
            $own[$field->property] = $this->{$field->property} ?? ($isLeft ? null : $beneath->{$field->property});
        }
        $left = array_values(array_unique([...$this->left, ...array_diff($beneath->left, $this->said())]));

        return $this->copy([...$own, 'left' => $left]);
    }

    /** What must lie over another to be this: what both say alike is left out, and what only the other says is left to the source. */
    public function since(self $other): self
    {
        $changes = $left = [];
        foreach (SpecTable::sound() as $field) {
            $value = $this->{$field->property};
            $isSame = $value == $other->{$field->property};
            $changes[$field->property] = $isSame ? null : $value;
            if (! $isSame && $value === null) {
                $left[] = $field->name;
            }
        }

        return $this->copy([...$changes, 'left' => $left]);
    }

    /** @return list<string> names of the fields that something is said of, be it that they are left to the source */
    public function said(): array
    {
        return SpecTable::names(array_values(array_filter(SpecTable::sound(), fn (SpecField $field): bool => $this->{$field
            ->property} !== null
            || in_array($field->name, $this->left, true))));
    }

    /** The same without what is said of some fields. */
    public function without(string ...$fields): self
    {
        return $this->copy([
            ...SpecTable::unsaid(SpecTable::sound(), array_values($fields)),
            'left' => array_values(array_diff($this->left, $fields)),
        ]);
    }

    public function withTracks(?string $tracks): self
    {
        return $this->copy(['tracks' => $tracks]);
    }

    public function withCodec(?string $codec): self
    {
        return $this->copy(['codec' => $codec]);
    }

    public function withPieces(?string $pieces): self
    {
        return $this->copy(['pieces' => $pieces]);
    }

    public function withLevel(?string $level): self
    {
        return $this->copy(['level' => $level]);
    }

    public function isEmpty(): bool
    {
        return $this->said() === [];
    }

    /** @return array<string, mixed> only what is said */
    public function toArray(): array
    {
        $said = $this->said();
        $values = [];
        foreach (SpecTable::sound() as $field) {
            if (in_array($field->name, $said, true)) {
                $values[$field->name] = $field->written($this->{$field->property});
            }
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
        $table = SpecTable::sound();
        $fields = new SpecFields($document, SpecTable::names($table), $within);
        $left = array_filter(SpecTable::names($table), fn (string $name): bool => array_key_exists($name, $document)
            && $document[$name] === null);

        return (new self)->copy([...SpecTable::read($table, $fields), 'left' => array_values($left)]);
    }

    /**
     * One that speaks of all sounds lies over each of those beneath; others lie over the one that speaks of the same tracks, else of all.
     *
     * @param  list<SoundSpec>  $own
     * @param  list<SoundSpec>  $beneath
     * @return list<SoundSpec>
     */
    public static function allOver(array $own, array $beneath): array
    {
        if ($own === [] || $beneath === []) {
            return $own === [] ? $beneath : $own;
        }
        if (count($own) === 1 && $own[0]->tracks === null) {
            return array_map(fn (SoundSpec $sound): SoundSpec => $own[0]->over($sound), $beneath);
        }

        return array_map(function (SoundSpec $sound) use ($beneath): SoundSpec {
            $same = array_values(array_filter($beneath, fn (SoundSpec $one): bool => $one->tracks === $sound->tracks));
            $common = array_values(array_filter($beneath, fn (SoundSpec $one): bool => $one->tracks === null));
            $found = $same[0] ?? $common[0] ?? (count($beneath) === 1 ? $beneath[0] : null);

            return $found === null ? $sound : $sound->over($found);
        }, $own);
    }
}
