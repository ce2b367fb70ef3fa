<?php

declare(strict_types=1);

namespace Octavox\Core\Reading;

use Octavox\Core\Media\Findings;
use Octavox\Core\Media\Findings\FindingKind;

/** Findings in words: what it is, and what to do. */
final class FindingWords
{
    /** One sentence. */
    public static function says(FindingKind $finding): string
    {
        return match (true) {
            $finding instanceof Findings\Other => $finding->says,
            $finding instanceof Findings\AnotherRecording => sprintf('From byte %s on this file holds %s, which is not read: only what '
                .'stands before is.',
                number_format($finding->at), $finding->what),
            $finding instanceof Findings\OtherContent => sprintf('%s bytes of this file, from byte %s on, do not belong to the recording '
                .'that is '
                .'read: they are damaged, or another recording was put behind it.', number_format($finding->bytes), number_format($finding
                ->at)),
            $finding instanceof Findings\TimeBeginsAnew => sprintf('The clock of this recording restarts %s, as if two recordings had '
                .'been joined or one interrupted; sound and picture are counted on from there.',
                $finding->times <= 1 ? 'once' : number_format($finding->times).' times'),
            $finding instanceof Findings\CutShort => self::cutShort($finding),
            $finding instanceof Findings\EndsWithinPart => 'The last part of the file announces more bytes than there are; its sound is '
                .'complete '
                .'all the same.',
            $finding instanceof Findings\NeverFinished => $finding->found === 'lengths'
                ? 'The recording was never finished: its length fields are empty. All the sound that is there was found.'
                : 'The recording was never finished, or the file was cut short: it announces more than there is. What is there was found '
                    .'and can be used.',
            $finding instanceof Findings\BeginsInFrame => sprintf('It begins in the middle of a frame; the %s bytes before the first '
                .'whole one are '
                .'left out.', number_format($finding->bytes)),
            $finding instanceof Findings\CopyProtected => $finding->track === null
                ? 'This recording is protected against copying, so its sound cannot be used here.'
                : sprintf('The sound of track %d is protected against copying, so it cannot be used here.', $finding->track),
            $finding instanceof Findings\NoSound => 'This video has no sound track, so there is no sound to take from it.',
            $finding instanceof Findings\SetUpMissing => sprintf('The sound of track %d is %s, but the bytes that set its decoder up are '
                .'missing in '
                .'this file or damaged.', $finding->track, $finding->format),
            $finding instanceof Findings\CodecNotDecodable => sprintf('The sound of track %d is %s, which Octavox cannot decode by '
                .'itself.', $finding->track,
                $finding->format),
            $finding instanceof Findings\NoSamples => sprintf('Track %d is announced but holds no sound at all.', $finding->track),
            $finding instanceof Findings\SeveralSoundTracks => sprintf('There are %s sound tracks; the first is taken unless you choose '
                .'another, or all.',
                number_format($finding->count)),
            $finding instanceof Findings\ExtensionDiffers => sprintf('The name ends in .%s, but the content is %s; some programs refuse '
                .'it for that alone.',
                $finding->extension, strtoupper($finding->container)),
            $finding instanceof Findings\NameSigns => sprintf('Its name holds %s, on which some programs and players choke.', $finding
                ->what),
            $finding instanceof Findings\LongName => sprintf('Its name takes %d bytes; some programs and players stop at %d.',
                $finding->bytes,
                $finding->most),
            $finding instanceof Findings\TagSigns => sprintf('Its tags hold %s (in %s), on which some programs and players choke.',
                $finding->what,
                $finding->fields),
            $finding instanceof Findings\SoundLate => sprintf('The sound of track %d begins %.3f s after the picture.', $finding->track,
                $finding->seconds),
            $finding instanceof Findings\SoundShort => sprintf('The sound of track %d ends %.1f s before the picture does.', $finding
                ->track,
                $finding->seconds),
            $finding instanceof Findings\PreEmphasis => sprintf('%s of this disc %s recorded with pre-emphasis: played as it is, %s too '
                .'bright.',
                $finding->tracks <= 1 ? 'One track' : number_format($finding->tracks).' tracks',
                $finding->tracks <= 1 ? 'was' : 'were',
                $finding->tracks <= 1 ? 'it sounds' : 'they sound'),
            $finding instanceof Findings\LowRate => sprintf('The sound of track %d takes %.0f kbit/s; unless it is silent, that is low '
                .'enough to be audible.', $finding->track, $finding->kbps),
            $finding instanceof Findings\Silent => sprintf('Sound track %d is silent from start to end.', $finding->track),
            $finding instanceof Findings\SilentSide => sprintf('The %s side of track %d is silent; all of its sound is on the %s.',
                $finding->side,
                $finding->track, $finding->good),
            $finding instanceof Findings\IdenticalSides => sprintf('Both sides of track %d are the same: it is mono taking up the space '
                .'of stereo.',
                $finding->track),
            $finding instanceof Findings\Flipped => sprintf('One side of track %d is flipped in polarity: on one speaker or in mono, the '
                .'sound nearly '
                .'vanishes.', $finding->track),
            $finding instanceof Findings\TwoMicrophones => self::twoMicrophones($finding),
            $finding instanceof Findings\Clipped => self::clipped($finding),
            $finding instanceof Findings\LowLevel => sprintf('Track %d is very low: its peak is %.1f dBFS%s.', $finding->track, $finding
                ->peak,
                $finding->lufs !== null ? sprintf(', its loudness %.0f LUFS', $finding->lufs) : ''),
        };
    }

    /**
     * What to do about it.
     *
     * @param  bool  $isMendable  whether an order can fill the remedy in
     */
    public static function remedy(FindingKind $finding, bool $isMendable = false): string
    {
        return match (true) {
            $finding instanceof Findings\Other => $finding->remedy,
            $finding instanceof Findings\AnotherRecording => 'Split the file there, and bring in both parts.',
            $finding instanceof Findings\OtherContent => 'Listen for what is missing; if something is, split the file there, or copy it '
                .'again.',
            $finding instanceof Findings\TimeBeginsAnew => 'Check whether sound and picture still match after that point; if not, split '
                .'the file there.',
            $finding instanceof Findings\CutShort => $finding->unit === 'seconds'
                ? 'Copy it again from where it came from, or make what is there.'
                : 'Copy it again if the original is longer, or make what is there.',
            $finding instanceof Findings\NeverFinished => $finding->found === 'lengths' ? 'Make it again; the result will have correct '
                .'lengths.'
                : 'Copy it again if the original is longer, or make what is there.',
            $finding instanceof Findings\EndsWithinPart, $finding instanceof Findings\BeginsInFrame => 'Nothing needs to be done.',
            $finding instanceof Findings\CopyProtected => 'Ask whoever sold it for a copy without protection.',
            $finding instanceof Findings\NoSound => 'Check the camera’s settings, or bring in the recording that was made beside it; the '
                .'picture can still '
                .'go into another container.',
            $finding instanceof Findings\SetUpMissing => 'Copy the file again from where it came from, or export it anew from the '
                .'program that made it.',
            $finding instanceof Findings\CodecNotDecodable => 'It can be copied untouched where a container carries it, such as Matroska '
                .'sound; or '
                .'export it from the program that made it in another format, such as AAC or PCM; or name a program that decodes it in the '
                .'settings.',
            $finding instanceof Findings\NoSamples => 'Copy the file again from where it came from.',
            $finding instanceof Findings\SeveralSoundTracks => 'Choose on the order sheet.',
            $finding instanceof Findings\ExtensionDiffers => $isMendable ? 'Copy it under its true extension.'
                : 'Nothing needs to be done here: Octavox goes by the content.',
            $finding instanceof Findings\NameSigns => 'Clean the name of the result.',
            $finding instanceof Findings\LongName => 'Give the result another name.',
            $finding instanceof Findings\TagSigns => 'Clean the tags of the result.',
            $finding instanceof Findings\SoundLate => 'Nothing needs to be done: what is made here begins with the picture, with silence '
                .'first.',
            $finding instanceof Findings\SoundShort => 'Check whether the recording broke off; what is there can be used.',
            $finding instanceof Findings\PreEmphasis => 'Apply de-emphasis where the disc is flagged for it.',
            $finding instanceof Findings\LowRate => 'Look for the original; a larger format made of this one sounds no better.',
            $finding instanceof Findings\Silent => 'Check whether the microphone was on; another track or another recording may have the '
                .'sound.',
            $finding instanceof Findings\SilentSide => sprintf('Put the %s side on both.', $finding->good),
            $finding instanceof Findings\IdenticalSides => 'Make it mono; nothing is lost.',
            $finding instanceof Findings\Flipped => 'Flip the right side back.',
            $finding instanceof Findings\TwoMicrophones => 'Split them into two mono files.',
            $finding instanceof Findings\Clipped => 'What is cut off cannot be brought back; use another recording of that moment if '
                .'there is one.',
            $finding instanceof Findings\LowLevel => 'Raise it until its peak is at −1 dBFS.',
        };
    }

    private static function cutShort(Findings\CutShort $finding): string
    {
        return match ($finding->unit) {
            null => 'The file ends before the recording does; what is there can be used.',
            'seconds' => sprintf('The file ends before its sound does, as after a copy that broke off: of %.1f s there are %.1f s.',
                $finding->announced, $finding->there),
            default => sprintf('The file announces %s %s but %s; what is there can be used.', number_format($finding->announced ?? 0),
                $finding->unit, $finding->unit === 'samples'
                    ? 'only '.number_format($finding->there ?? 0).' are there' : 'has only '.number_format($finding->there ?? 0)),
        };
    }

    private static function twoMicrophones(Findings\TwoMicrophones $finding): string
    {
        $reasons = array_filter([
            sprintf('their waves are hardly alike (%.2f)', $finding->alike),
            abs($finding->gap) > 2.0
                ? sprintf('the %s is %.0f dB louder', $finding->gap > 0 ? 'left' : 'right', abs($finding->gap)) : '',
            $finding->unsteady > 4.0 ? 'now one leads, now the other' : '',
            $finding->timbre > 3.0 ? 'they sound different' : '',
        ]);

        return sprintf('Left and right of track %d are %s two microphones and no stereo image (%d %% sure): %s.', $finding->track,
            $finding->sure > 0.85 ? 'almost certainly' : 'probably', (int) round(100 * $finding->sure), implode(', ', $reasons));
    }

    private static function clipped(Findings\Clipped $finding): string
    {
        return sprintf('Track %d clips %s: at %s%s.', $finding->track,
            $finding->times === 1 ? 'once' : number_format($finding->times).' times', $finding->at, $finding->later);
    }
}
