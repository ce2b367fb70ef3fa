<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Plan\Violations\ViolationKinds;

/**
 * Something that was asked for and is not possible, and the nearest that is: possible values, rising; none where there is no such choice.
 * {@see PlanWords} says it in words.
 *
 * @phpstan-sealed (Violations\NoFormat|Violations\SoundAlone|Violations\PictureLeft|Violations\OtherCodec|Violations\NoSound|
 *     Violations\NoTrack|Violations\NoLanguage|Violations\EmptyTrack|Violations\TooShort|Violations\Stopped|Violations\Channels|
 *     Violations\NoPicture|Violations\Picture|Violations\VideoSound|Violations\OnlyKept|Violations\Silence|Violations\VideoPieces|
 *
 * Violations\VideoLength|Violations\NotAlike|Violations\NoLength|Violations\LengthOfPieces|
 *     Violations\RateBeyond|Violations\Rate|
 *     Violations\BitDepth|Violations\BitRate|Violations\VariableRate|Violations\RateMode|Violations\EncoderSetting|Violations\Compression|
 * Violations\NameField)
 */
abstract readonly class Violation
{
    public function at(string $path): CannotPlan
    {
        return CannotPlan::because($this, $path);
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        $mapper = ViolationKinds::mapper();
        $values = $mapper->values($this);
        $nearest = $values['nearest'] ?? [];
        unset($values['nearest']);

        return ['rule' => $mapper->word($this), 'values' => (object) $values, 'nearest' => $nearest];
    }
}
