<?php

declare(strict_types=1);

namespace Octavox\Core\Destination;

use Octavox\Core\Order\OutputSpec;

/** How a source stands to a destination: accepted as it is, or what stops it and the least that helps. */
final readonly class Fit
{
    /**
     * @param  list<Rejection>  $violations  of the source as it is; none where it is accepted
     * @param  ?OutputSpec  $spec  what makes it acceptable; what copies it where it is accepted; null where nothing does
     * @param  list<Rejection>  $remaining  what would still be refused where nothing helps
     */
    public function __construct(public Change $change, public array $violations, public ?OutputSpec $spec, public array $remaining = []) {}

    public function isAccepted(): bool
    {
        return $this->change === Change::None;
    }

    /** Rules that a plain copy into another file can satisfy. */
    private const BESIDE_SOUND = [Rule::Container, Rule::Name, Rule::Index, Rule::Broadcast, Rule::Tags];

    /** Why no lesser change helps, in one sentence; empty where nothing needs to be changed. */
    public function why(): string
    {
        $all = implode(' ', array_map(fn (Rejection $one): string => $one->says, $this->violations));
        $ofSound = implode(' ', array_map(fn (Rejection $one): string => $one->says, array_filter($this->violations,
            fn (Rejection $one): bool => ! in_array($one->rule, self::BESIDE_SOUND, true))));

        return match ($this->change) {
            Change::None => '',
            // What is copied into another file was all that stood in the way, whatever that is.
            Change::Remux => $all === '' ? 'What was asked for besides needs another file; its sound is kept.'
                : 'A plain copy would not do: '.$all.' Its sound is kept.',
            Change::Remake => $ofSound === '' ? 'Another container would not do: none that is accepted carries this sound untouched.'
                : 'Another container would not do: '.$ofSound,
            Change::Impossible => implode(' ', array_map(fn (Rejection $one): string => $one->says, $this->remaining === []
                ? $this->violations : $this->remaining)),
        };
    }

    /** @return array<string, mixed> as `read --for` prints it */
    public function toArray(): array
    {
        return ['accepted' => $this->isAccepted(), 'change' => $this->change->value,
            'violations' => array_map(fn (Rejection $one): array => $one->toArray(), $this->violations)];
    }
}
