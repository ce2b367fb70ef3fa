<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Copying;
use Octavox\Core\Json\Fields;
use Octavox\Core\Media\Segment;
use Octavox\Core\Sound\InvalidLevel;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Sound\LevelTarget;
use Octavox\Core\Sound\Mix;
use Octavox\Core\Sound\NoStandardMix;
use Octavox\Core\Sound\Piece;
use Octavox\Core\Sound\Routing;

/** How the sound of one result is shaped: which channels, which pieces, fades, level. Counts are samples at the source's rate. */
final readonly class Shape
{
    use Copying;

    /**
     * @param  ?Routing  $routing  null where the standard mix between the two layouts is meant
     * @param  list<Piece>  $pieces  in the order in which they are heard; none for the whole
     * @param  list<int>  $joined  numbers of further tracks whose channels come in after those of the first
     * @param  list<Piece>  $deemphasised  stretches of what is heard whose treble is taken down
     * @param  string  $label  what it is called beside others of the same source, such as `lav`
     * @param  int  $number  of the piece where each becomes a result of its own, else 0
     */
    public function __construct(
        public ?Routing $routing = null,
        public array $pieces = [],
        public int $fadeIn = 0,
        public int $fadeOut = 0,
        public ?LevelTarget $level = null,
        public int $number = 0,
        public ?KeptCut $kept = null,
        public string $label = '',
        public array $joined = [],
        public array $deemphasised = [],
    ) {}

    public static function none(): self
    {
        return new self;
    }

    /** Whether samples get other values, so that nothing coded can be kept. */
    public function changesSamples(): bool
    {
        return $this->joined !== [] || $this->deemphasised !== [] || $this->fadeIn > 0 || $this->fadeOut > 0 || $this->level !== null
            || $this->routing !== null
            && ! $this->routing->isStraight();
    }

    /** Whether samples get values that the source does not have. */
    public function changesValues(): bool
    {
        return $this->deemphasised !== [] || $this->fadeIn > 0 || $this->fadeOut > 0 || $this->level !== null || $this->routing !== null
            && ! $this->routing->mix->isPicking();
    }

    /** @throws NoStandardMix */
    public function mix(Layout $from, Layout $to): Mix
    {
        return $this->routing === null ? Mix::between($from, $to) : $this->routing->mix;
    }

    /**
     * What is heard of the sound.
     *
     * @param  list<Segment>  $segments
     * @return list<Segment>
     */
    public function cut(array $segments): array
    {
        if ($this->pieces === []) {
            return $segments;
        }

        return array_merge(...array_map(fn (Piece $piece): array => Segment::between($segments, $piece->from,
            $piece->until), $this->pieces));
    }

    /** @param  list<int>  $tracks  numbers of further tracks */
    public function joining(array $tracks): self
    {
        return $this->with(joined: $tracks);
    }

    /**
     * Where the treble of some stretches is taken down.
     *
     * @param  list<Piece>  $stretches  of the sound as it presents itself, in order
     */
    public function deemphasising(array $stretches, int $length): self
    {
        $found = [];
        $at = 0;
        foreach ($this->pieces === [] ? [new Piece(0, $length)] : $this->pieces as $piece) {
            foreach ($stretches as $stretch) {
                [$from, $until] = [max($stretch->from, $piece->from), min($stretch->until, $piece->until)];
                if ($from < $until) {
                    $found[] = new Piece($at + $from - $piece->from, $at + $until - $piece->from);
                }
            }
            $at += $piece->length();
        }

        return $found === [] ? $this : $this->with(deemphasised: $found);
    }

    public function keeping(KeptCut $kept): self
    {
        return $this->with(kept: $kept);
    }

    /** The same with other parts. */
    private function with(mixed ...$parts): self
    {
        return $this->copy($parts);
    }

    /** With the channels in the order of the result; a routing that changes nothing of the source's layout is left to the standard mix. */
    public function inOrderOf(Layout $to, Layout $from): self
    {
        if ($this->routing === null || $this->routing->isStraight() && $this->routing->layout->equals($from)) {
            return $this->with(routing: null);
        }
        $places = $this->routing->layout->placesOf($to);
        $within = $places === null ? $this->routing->layout->placesWithin($to) : null;
        if ($within !== null) {
            $silent = array_fill(0, max(1, $from->count()), 0.0);

            return $this->with(routing: new Routing($to,
                Mix::ofGains(array_map(fn (?int $place): array => $this->routing->mix->gains[$place ?? -1] ?? $silent, $within))));
        }
        $gains = $this->routing->mix->gains;
        foreach ($places ?? [] as $channel => $place) {
            $gains[$channel] = $this->routing->mix->gains[$place] ?? $gains[$channel];
        }

        return $this->with(routing: new Routing($to, Mix::ofGains(array_values($gains))));
    }

    /** @return array<string, mixed> what a plan holds of it */
    public function toArray(): array
    {
        return [
            'gains' => $this->routing?->mix->gains,
            'label' => $this->label,
            'pieces' => self::ends($this->pieces),
            'fade_in' => $this->fadeIn,
            'fade_out' => $this->fadeOut,
            'level' => $this->level === null ? null : (string) $this->level,
            'piece' => $this->number,
            'joined' => $this->joined,
            ...($this->deemphasised === [] ? [] : ['deemphasised' => self::ends($this->deemphasised)]),
            'kept' => $this->kept === null ? null
                : [$this->kept->from, $this->kept->until, $this->kept->skip, $this->kept->samples, $this->kept->early, $this->kept->late],
        ];
    }

    /**
     * @param  Layout  $layout  of the result
     *
     * @throws \UnexpectedValueException where it is not what {@see self::toArray()} gave
     */
    public static function stored(Fields $fields, Layout $layout): self
    {
        $rows = $fields->isNull('gains') ? [] : array_map(fn (mixed $row): array => self::row($row), $fields->list('gains'));
        $kept = $fields->isNull('kept') ? null : $fields->numbers('kept');

        return new self(
            $rows === [] ? null : new Routing($layout, Mix::ofGains($rows)),
            self::readPieces($fields->list('pieces')),
            $fields->number('fade_in'),
            $fields->number('fade_out'),
            self::level($fields->textOrNull('level')),
            $fields->number('piece'),
            $kept === null || count($kept) !== 6 ? null : new KeptCut(...$kept),
            $fields->text('label'),
            $fields->isNull('joined') ? [] : $fields->numbers('joined'),
            isset($fields->all()['deemphasised']) ? self::readPieces($fields->list('deemphasised')) : [],
        );
    }

    /**
     * @param  list<Piece>  $pieces
     * @return list<array{int, int}>
     */
    private static function ends(array $pieces): array
    {
        return array_map(fn (Piece $piece): array => [$piece->from, $piece->until], $pieces);
    }

    /**
     * @param  array<array-key, mixed>  $pieces
     * @return list<Piece>
     *
     * @throws \UnexpectedValueException
     */
    private static function readPieces(array $pieces): array
    {
        return array_values(array_map(fn (mixed $piece): Piece => is_array($piece) && is_int($piece[0] ?? null) && is_int($piece[1] ?? null)
            ? new Piece($piece[0], $piece[1]) : throw new \UnexpectedValueException('A plan holds a piece without ends.'), $pieces));
    }

    private static function level(?string $text): ?LevelTarget
    {
        try {
            return $text === null ? null : LevelTarget::parse($text);
        } catch (InvalidLevel) {
            throw new \UnexpectedValueException('A plan holds a level that cannot be read.');
        }
    }

    /** @return non-empty-list<float> */
    private static function row(mixed $row): array
    {
        $gains = array_map(fn (mixed $gain): float => is_int($gain) || is_float($gain) ? (float) $gain
            : throw new \UnexpectedValueException('A plan holds a gain that is no number.'), is_array($row) ? array_values($row) : []);

        return $gains === [] ? throw new \UnexpectedValueException('A plan holds a channel without gains.') : $gains;
    }
}
