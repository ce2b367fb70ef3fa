<?php

declare(strict_types=1);

namespace Octavox\Core\Sound;

/** The channels of a sound track in their order. */
final readonly class Layout
{
    /** More channels than any format here carries are taken for damage. */
    public const MOST_CHANNELS = 64;

    /** @param  non-empty-list<Channel>  $channels */
    private function __construct(public array $channels) {}

    public static function of(Channel $first, Channel ...$more): self
    {
        return new self([$first, ...array_values($more)]);
    }

    public static function mono(): self
    {
        return self::of(Channel::Centre);
    }

    public static function stereo(): self
    {
        return self::of(Channel::Left, Channel::Right);
    }

    /** Five full channels and one for low frequencies, in the order of the WAV mask. */
    public static function fiveOne(): self
    {
        return self::of(Channel::Left, Channel::Right, Channel::Centre, Channel::LowFrequency, Channel::SideLeft, Channel::SideRight);
    }

    public static function sevenOne(): self
    {
        return self::of(Channel::Left, Channel::Right, Channel::Centre, Channel::LowFrequency, Channel::BackLeft, Channel::BackRight,
            Channel::SideLeft, Channel::SideRight);
    }

    /** One or two channels are mono and stereo; more are channels without a place. */
    public static function undeclared(int $count): self
    {
        return match (true) {
            $count === 1 => self::mono(),
            $count === 2 => self::stereo(),
            default => new self(array_fill(0, max(1, min($count, self::MOST_CHANNELS)), Channel::Unplaced)),
        };
    }

    /** From a WAV channel mask; bits beyond the known ones, or too few, leave channels without a place. */
    public static function fromMask(int $mask, int $count): self
    {
        $channels = [];
        foreach (Channel::cases() as $channel) {
            if ($channel !== Channel::Unplaced && ($mask & $channel->value) !== 0 && count($channels) < $count) {
                $channels[] = $channel;
            }
        }
        while (count($channels) < $count && count($channels) < self::MOST_CHANNELS) {
            $channels[] = Channel::Unplaced;
        }

        return $channels === [] || $mask === 0 ? self::undeclared($count) : new self($channels);
    }

    public function count(): int
    {
        return count($this->channels);
    }

    public function mask(): int
    {
        return array_sum(array_map(fn (Channel $channel): int => $channel->value, $this->channels));
    }

    /** Whether every channel has a place. */
    public function isPlaced(): bool
    {
        return ! in_array(Channel::Unplaced, $this->channels, true);
    }

    public function equals(self $other): bool
    {
        return $this->channels === $other->channels;
    }

    /** The same channels in the order of the bits of the WAV mask; channels without a place stay where they are. */
    public function inMaskOrder(): self
    {
        return $this->inOrder(...Channel::cases());
    }

    /** The same channels in another order; where one has no place, or is not named, all stay where they are. */
    public function inOrder(Channel ...$order): self
    {
        $sorted = [];
        foreach ($order as $channel) {
            foreach ($this->channels as $own) {
                if ($own === $channel) {
                    $sorted[] = $own;
                }
            }
        }

        return $sorted === [] || count($sorted) !== $this->count() || ! $this->isPlaced() ? $this
            : new self($sorted);
    }

    /**
     * Whether the other has the same channels, in whatever order; of one pair of surrounds it does not matter whether they stand at the
     * sides or in the back.
     */
    public function sounds(self $other): bool
    {
        return $this->placesOf($other) !== null;
    }

    /**
     * Whether a file that was written with these channels and reads as the others is right: each has the place that it had. Of one pair of
     * surrounds it does not matter whether they stand at the sides or in the back.
     */
    public function reads(self $read): bool
    {
        return $this->count() === $read->count() && (! $this->isPlaced() || $this->withOneSurround() === $read->withOneSurround());
    }

    /**
     * For each channel of the other its place among these, counted from 0. Channels without a place are taken in the order of files that
     * name none: that of the WAV mask.
     *
     * @return ?list<int> null where the channels are not the same
     */
    public function placesOf(self $other): ?array
    {
        if ($this->count() !== $other->count()) {
            return null;
        }
        if ($this->channels === $other->channels || $this->count() === 1 || ! $other->isPlaced()) {
            return array_keys($this->channels);
        }
        $own = $this->isPlaced() ? $this : $other->inMaskOrder();
        $places = [];
        foreach ($other->withOneSurround() as $channel) {
            $place = array_search($channel, $own->withOneSurround(), true);
            if ($place === false) {
                return null;
            }
            $places[] = (int) $place;
        }

        return count(array_unique($places)) === count($places) ? $places : null;
    }

    /**
     * For each channel of a larger layout its place among these; null where it stays silent.
     *
     * @return ?non-empty-list<?int> null where the other has not all of these channels
     */
    public function placesWithin(self $other): ?array
    {
        if (! $this->isPlaced() || ! $other->isPlaced()) {
            return null;
        }
        $own = $this->withOneSurround();
        $places = array_map(fn (Channel $channel): ?int => ($place = array_search($channel, $own, true)) === false ? null : (int) $place,
            $other->withOneSurround());

        return $places !== [] && count(array_unique(array_filter($places, is_int(...)))) === $this->count() ? $places : null;
    }

    /**
     * The smallest of these that has a place for each channel; where its channels have none, the one of as many, or itself.
     *
     * @param  list<self>  $layouts  that a format has, rising
     * @param  string  $format  label, for the refusal
     *
     * @throws LayoutNotCarried
     */
    public function carriedBy(array $layouts, string $format): self
    {
        if ($this->count() < 3) {
            return $this;
        }
        foreach ($layouts as $layout) {
            if ($this->sounds($layout) || $this->placesWithin($layout) !== null) {
                return $layout;
            }
        }

        return $this->isPlaced() ? throw LayoutNotCarried::by($format, $this, $layouts) : $this;
    }

    /** @return list<Channel> a lone pair in the back counts as one at the sides */
    private function withOneSurround(): array
    {
        if (in_array(Channel::SideLeft, $this->channels, true) || in_array(Channel::SideRight, $this->channels, true)) {
            return $this->channels;
        }

        return array_map(fn (Channel $channel): Channel => match ($channel) {
            Channel::BackLeft => Channel::SideLeft,
            Channel::BackRight => Channel::SideRight,
            default => $channel,
        }, $this->channels);
    }

    /** `mono`, `stereo`, `5.1`, `7.1`, or the letters of the channels. */
    public function name(): string
    {
        $sorted = array_map(fn (Channel $channel): int => $channel->value, $this->channels);
        sort($sorted);

        return match (true) {
            $this->count() === 1 => 'mono',
            $sorted === [0x1, 0x2] => 'stereo',
            $sorted === [0x1, 0x2, 0x4, 0x8, 0x10, 0x20], $sorted === [0x1, 0x2, 0x4, 0x8, 0x200, 0x400] => '5.1',
            $sorted === [0x1, 0x2, 0x4, 0x8, 0x10, 0x20, 0x200, 0x400] => '7.1',
            ! $this->isPlaced() => $this->count().' channels',
            default => $this->letters(),
        };
    }

    /**
     * What each channel is called beside the others: its letters; `M` where it is the only one; its number, from 1, where it has no place.
     *
     * @return list<string>
     */
    public function names(): array
    {
        return array_map(fn (Channel $channel, int $index): string => match (true) {
            $this->count() === 1 => 'M',
            $channel === Channel::Unplaced => (string) ($index + 1),
            default => $channel->letters(),
        }, $this->channels, array_keys($this->channels));
    }

    public function letters(): string
    {
        return implode(' ', array_map(fn (Channel $channel): string => $channel->letters(), $this->channels));
    }
}
