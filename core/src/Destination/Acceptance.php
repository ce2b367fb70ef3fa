<?php

declare(strict_types=1);

namespace Octavox\Core\Destination;

use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Order\SpecFields;
use Octavox\Core\Order\SpecInvalid;

/** One kind of file that a destination takes: containers and codecs that go together, and the numbers they may have. */
final readonly class Acceptance
{
    private const FIELDS = ['containers', 'codecs', 'picture', 'rates', 'bit_depths', 'layouts', 'most_channels', 'least_kbps',
        'most_kbps', 'constant'];

    private const MOST_KBPS = 1_000_000;

    /**
     * @param  non-empty-list<string>  $containers  as readings name them
     * @param  non-empty-list<string>  $codecs  values of {@see \Octavox\Core\Media\Codec}
     * @param  ?bool  $picture  whether there must be one; null leaves it open
     * @param  list<int>  $rates  Hz, rising; none where every rate is taken
     * @param  list<int>  $bitDepths  bits of one sample, rising; none where every depth is taken
     * @param  bool  $constant  whether the bit rate must be constant
     * @param  list<string>  $layouts  names of {@see \Octavox\Core\Sound\Layout::name()}; none where every one is taken
     */
    private function __construct(public array $containers, public array $codecs, public ?bool $picture, public array $rates,
        public array $bitDepths, public array $layouts, public ?int $mostChannels, public ?int $leastKbps, public ?int $mostKbps,
        public bool $constant) {}

    /**
     * @param  array<array-key, mixed>  $document
     *
     * @throws SpecInvalid which names the field
     */
    public static function fromArray(array $document, string $within): self
    {
        $fields = new SpecFields($document, self::FIELDS, $within);
        $some = function (string $name) use ($fields): array {
            $texts = $fields->texts($name) ?? [];

            return $texts === [] ? throw $fields->wrong($name, 'a list of at least one') : $texts;
        };

        [$least, $most] = [$fields->number('least_kbps', 1, self::MOST_KBPS), $fields->number('most_kbps', 1, self::MOST_KBPS)];
        if ($least !== null && $most !== null && $least > $most) {
            throw $fields->wrong('least_kbps', "at most $most, as most_kbps says");
        }

        return new self($some('containers'), $some('codecs'), $fields->bool('picture'), self::numbers($fields, 'rates'),
            self::numbers($fields, 'bit_depths'), $fields->texts('layouts') ?? [], $fields->number('most_channels', 1, 64),
            $least, $most, $fields->bool('constant') ?? false);
    }

    /** @return array<string, mixed> only what is said */
    public function toArray(): array
    {
        return array_filter([
            'containers' => $this->containers, 'codecs' => $this->codecs, 'picture' => $this->picture, 'rates' => $this->rates,
            'bit_depths' => $this->bitDepths, 'layouts' => $this->layouts, 'most_channels' => $this->mostChannels,
            'least_kbps' => $this->leastKbps,
            'most_kbps' => $this->mostKbps, 'constant' => $this->constant ? true : null,
        ], fn (mixed $value): bool => $value !== null && $value !== []);
    }

    /** @return list<Rejection> for which such a file is not of this kind; none where it is */
    public function refuses(Facts $facts): array
    {
        $unfit = [];
        if (! in_array($facts->container, $this->containers, true)) {
            $unfit[] = FitWords::container($facts->container, $this->containers);
        }
        if ($this->picture !== null && $this->picture !== $facts->hasPicture) {
            $unfit[] = FitWords::picture($facts->hasPicture);
        }
        foreach ($facts->sounds as $index => $audio) {
            array_push($unfit, ...$this->refusesSound($audio, $facts->kbps[$index] ?? null));
        }
        if ($this->constant && $facts->isVariable && $unfit === []) {
            $unfit[] = FitWords::rateMode();
        }

        return array_values(array_unique($unfit, SORT_REGULAR));
    }

    /** @return list<Rejection> */
    public function refusesSound(AudioFormat $audio, ?float $kbps): array
    {
        // Numbers of another codec's bit rate say nothing.
        $isCodec = in_array($audio->codec->value, $this->codecs, true);
        $unfit = $isCodec ? [] : [FitWords::codec($audio, $this->codecs)];
        if ($this->rates !== [] && ! in_array($audio->rate, $this->rates, true)) {
            $unfit[] = FitWords::rate($audio->rate, $this->rateFor($audio->rate));
        }
        if ($this->bitDepths !== [] && $audio->bits() > 0 && ! in_array($audio->bits(), $this->bitDepths, true)) {
            $unfit[] = FitWords::bitDepth($audio->bits(), $this->bitDepthFor($audio->bits()));
        }
        if ($this->layouts !== [] && ! in_array($audio->layout->name(), $this->layouts, true)) {
            $unfit[] = FitWords::layout($audio->layout->name(), $this->layouts);
        }
        if ($this->mostChannels !== null && $audio->channels() > $this->mostChannels) {
            $unfit[] = FitWords::channels($audio->channels(), $this->mostChannels);
        }
        if ($isCodec && $kbps !== null && ! Facts::isWithin($kbps, $this->leastKbps ?? 0, $this->mostKbps ?? self::MOST_KBPS)) {
            $unfit[] = FitWords::bitRate($kbps, $this->leastKbps, $this->mostKbps);
        }

        return $unfit;
    }

    /**
     * The rate that loses least: the one that there is; else of the same family (multiples of 11,025 or of 8,000 Hz) the next above, or the
     * highest below; else the next above of the other family.
     */
    public function rateFor(int $rate): int
    {
        if ($this->rates === [] || in_array($rate, $this->rates, true)) {
            return $rate;
        }
        $family = fn (int $one): bool => ($one % 11_025 === 0) === ($rate % 11_025 === 0);
        $own = array_values(array_filter($this->rates, $family));
        $above = fn (array $rates): array => array_values(array_filter($rates, fn (int $one): bool => $one > $rate));

        return $above($own)[0] ?? ($own === [] ? $above($this->rates)[0] ?? max($this->rates) : max($own));
    }

    /** The depth that there is, else the next above, else the highest. */
    public function bitDepthFor(int $bits): int
    {
        $above = array_values(array_filter($this->bitDepths, fn (int $one): bool => $one >= $bits));

        return $this->bitDepths === [] ? $bits : $above[0] ?? max($this->bitDepths);
    }

    /**
     * @return list<int> rising
     *
     * @throws SpecInvalid
     */
    private static function numbers(SpecFields $fields, string $name): array
    {
        $given = $fields->map($name) ?? [];
        $numbers = array_values(array_filter($given, fn (mixed $one): bool => is_int($one) && $one > 0 && $one <= 10_000_000));
        sort($numbers);

        return count($numbers) === count($given) ? $numbers : throw $fields->wrong($name, 'a list of whole numbers above zero');
    }
}
