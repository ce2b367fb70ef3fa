<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

use Octavox\Core\Codec\RateMode;
use Octavox\Core\Tag\TagRoom;

/** What a kind of file can hold, for plans and for what an order sheet offers. */
final readonly class Capabilities
{
    /**
     * @param  list<int>  $bitDepths  bits of one sample to choose from, rising; empty where there is no choice
     * @param  list<int>  $rates  Hz, rising; empty where every rate is taken
     * @param  list<int>  $kbps  1000 bits a second to choose from, rising; empty where there is no choice
     * @param  bool  $variable  whether a level of fidelity can be asked for instead of a bit rate
     * @param  bool  $makes  whether sound can be encoded into it; otherwise it only takes what is kept
     * @param  bool  $headerless  whether nothing in the file says what it holds
     * @param  bool  $holdsGaps  whether its packets have times of their own, so that copied ones need not follow each other
     * @param  bool  $holdsChapters  whether it has a place for chapters or marks
     * @param  bool  $holdsBroadcast  whether it has a place for what broadcasters say
     * @param  bool  $holdsLayout  whether it says which channel is which, where there are more than two
     * @param  list<RateMode>  $rateModes  how a bit rate can be held, the usual one first
     * @param  bool  $stereoCoding  whether two channels can be coded jointly or each for itself
     * @param  bool  $checksums  whether frames can carry sums that they usually do not
     * @param  list<int>  $compression  levels to choose from, rising; more is smaller and slower
     * @param  string  $suits  what it is good for, in a few words
     */
    public function __construct(
        public Fidelity $fidelity,
        public string $suits,
        public array $bitDepths = [],
        public array $rates = [],
        public int $mostChannels = 2,
        public array $kbps = [],
        public bool $variable = false,
        public bool $makes = true,
        public bool $headerless = false,
        public bool $holdsGaps = false,
        public bool $holdsChapters = false,
        public array $rateModes = [],
        public bool $stereoCoding = false,
        public bool $checksums = false,
        public array $compression = [],
        public bool $holdsBroadcast = false,
        public TagRoom $tags = new TagRoom,
        public bool $holdsLayout = true,
    ) {}
}
