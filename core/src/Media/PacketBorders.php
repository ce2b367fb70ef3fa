<?php

declare(strict_types=1);

namespace Octavox\Core\Media;

use Octavox\Core\Json\Fields;

/**
 * Where the packets around two marks of a coded sound begin and end, in samples of it: what planning a cut needs to know of the packets.
 */
final readonly class PacketBorders
{
    /**
     * @param  list<int>  $starts  of the packets that a decoder needs up to the one that holds the first mark, in order; none
     *          where it cannot be found
     * @param  ?int  $end  of the packet that holds the last sample before the second mark
     */
    public function __construct(public array $starts, public ?int $end) {}

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return ['starts' => $this->starts, 'end' => $this->end];
    }

    /**
     * @param  array<array-key, mixed>  $facts  what {@see self::toArray()} gave
     *
     * @throws \UnexpectedValueException where it is not that
     */
    public static function fromArray(array $facts): self
    {
        $fields = new Fields($facts);

        return new self($fields->numbers('starts'), $fields->numberOrNull('end'));
    }
}
