<?php

declare(strict_types=1);

namespace Octavox\Core\Media;

/** What can be found about a source; the words for each are given where it is shown. */
enum FindingKind: string
{
    case AnotherRecording = 'another-recording';
    case OtherContent = 'other-content';
    case TimeBeginsAnew = 'time-begins-anew';
    case CutShort = 'cut-short';
    case EndsWithinPart = 'ends-within-a-part';
    case NeverFinished = 'never-finished';
    case BeginsInFrame = 'begins-in-frame';
    case Protected = 'protected';
    case NoSound = 'no-sound';
    case SetUpMissing = 'set-up-missing';
    case CodecNotDecodable = 'codec-not-decodable';
    case NoSamples = 'no-samples';
    case SeveralSoundTracks = 'several-sound-tracks';
    case ExtensionDiffers = 'extension-differs';
    case NameSigns = 'name-signs';
    case LongName = 'long-name';
    case TagSigns = 'tag-signs';
    case SoundLate = 'sound-late';
    case SoundShort = 'sound-short';
    case PreEmphasis = 'pre-emphasis';
    case LowRate = 'low-rate';
    case Silent = 'silent';
    case SilentSide = 'silent-side';
    case IdenticalSides = 'identical-sides';
    case Flipped = 'flipped';
    case TwoMicrophones = 'two-microphones';
    case Clipped = 'clipped';
    case LowLevel = 'low-level';
    /** Of another release: it brings its own words. */
    case Other = 'other';
}
