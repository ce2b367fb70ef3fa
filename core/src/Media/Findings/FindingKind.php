<?php

declare(strict_types=1);

namespace Octavox\Core\Media\Findings;

/**
 * What can be found about a source. {@see \Octavox\Core\Reading\FindingWords} says each in words.
 *
 * @phpstan-sealed (AnotherRecording|OtherContent|TimeBeginsAnew|CutShort|EndsWithinPart|NeverFinished|BeginsInFrame|CopyProtected|NoSound|
 *     SetUpMissing|CodecNotDecodable|NoSamples|SeveralSoundTracks|ExtensionDiffers|NameSigns|LongName|TagSigns|SoundLate|SoundShort|
 *     PreEmphasis|LowRate|Silent|SilentSide|IdenticalSides|Flipped|TwoMicrophones|Clipped|LowLevel|Other)
 */
interface FindingKind {}
