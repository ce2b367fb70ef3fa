<?php

declare(strict_types=1);

namespace Octavox\Core\Media\Findings;

use Octavox\Core\Json\KindMapper;

/** The registry: the word that stands for each in JSON. */
final class FindingKinds
{
    private const BY_WORD = [
        'another-recording' => AnotherRecording::class,
        'other-content' => OtherContent::class,
        'time-begins-anew' => TimeBeginsAnew::class,
        'cut-short' => CutShort::class,
        'ends-within-part' => EndsWithinPart::class,
        'never-finished' => NeverFinished::class,
        'begins-in-frame' => BeginsInFrame::class,
        'protected' => CopyProtected::class,
        'no-sound' => NoSound::class,
        'set-up-missing' => SetUpMissing::class,
        'codec-not-decodable' => CodecNotDecodable::class,
        'no-samples' => NoSamples::class,
        'several-sound-tracks' => SeveralSoundTracks::class,
        'extension-differs' => ExtensionDiffers::class,
        'name-signs' => NameSigns::class,
        'long-name' => LongName::class,
        'tag-signs' => TagSigns::class,
        'sound-late' => SoundLate::class,
        'sound-short' => SoundShort::class,
        'pre-emphasis' => PreEmphasis::class,
        'low-rate' => LowRate::class,
        'silent' => Silent::class,
        'silent-side' => SilentSide::class,
        'identical-sides' => IdenticalSides::class,
        'flipped' => Flipped::class,
        'two-microphones' => TwoMicrophones::class,
        'clipped' => Clipped::class,
        'low-level' => LowLevel::class,
        'other' => Other::class,
    ];

    /** @return KindMapper<FindingKind> */
    public static function mapper(): KindMapper
    {
        /** @var KindMapper<FindingKind> $mapper */
        $mapper = new KindMapper(self::BY_WORD);

        return $mapper;
    }
}
