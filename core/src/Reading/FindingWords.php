<?php

declare(strict_types=1);

namespace Octavox\Core\Reading;

use Octavox\Core\Media\FindingKind;

/** Findings in words: what it is, and what to do. */
final class FindingWords
{
    /** One sentence. */
    public static function says(Finding $finding): string
    {
        $number = fn (string $name): string => number_format($finding->number($name));
        $track = (int) $finding->number('track');

        return match (isset($finding->values['says']) ? FindingKind::Other : $finding->kind) {
            FindingKind::Other => $finding->text('says'),
            FindingKind::AnotherRecording => sprintf('From byte %s on this file holds %s, which is not read: only what stands before is.',
                $number('at'), $finding->text('what')),
            FindingKind::OtherContent => sprintf('%s bytes of this file, from byte %s on, do not belong to the recording that is '
                .'read: they are damaged, or another recording was put behind it.', $number('bytes'), $number('at')),
            FindingKind::TimeBeginsAnew => sprintf('The clock of this recording begins anew %s, as where two recordings were joined or one '
                .'was interrupted; sound and picture go on from there as they are counted.',
                $finding->number('times') <= 1 ? 'once' : $number('times').' times'),
            FindingKind::CutShort => self::cutShort($finding),
            FindingKind::EndsWithinPart => 'The last part of the file announces more bytes than there are; its sound is complete '
                .'all the same.',
            FindingKind::NeverFinished => $finding->text('found') === 'lengths'
                ? 'The recording was never finished: its length fields are empty. All the sound that is there was found.'
                : 'The recording was never finished, or the file was cut short: it announces more than there is. What is there was found '
                    .'and can be used.',
            FindingKind::BeginsInFrame => sprintf('It begins in the midst of a frame; the %s bytes before the first whole one are '
                .'left out.', $number('bytes')),
            FindingKind::Protected => $track === 0 ? 'This recording is protected against copying, so its sound cannot be used here.'
                : sprintf('The sound of track %d is protected against copying, so it cannot be used here.', $track),
            FindingKind::NoSound => 'This video has no sound track, so there is no sound to take from it.',
            FindingKind::SetUpMissing => sprintf('The sound of track %d is %s, but the bytes that set its decoder up are missing in '
                .'this file or damaged.', $track, $finding->text('format')),
            FindingKind::CodecNotDecodable => sprintf('The sound of track %d is %s, which Octavox cannot decode by itself.', $track,
                $finding->text('format')),
            FindingKind::NoSamples => sprintf('Track %d is announced but holds no sound at all.', $track),
            FindingKind::SeveralSoundTracks => sprintf('There are %s sound tracks; the first is taken unless you choose another, or all.',
                $number('count')),
            FindingKind::ExtensionDiffers => sprintf('The name ends in .%s, but the content is %s; some programs refuse it for that alone.',
                $finding->text('extension'), strtoupper($finding->text('container'))),
            FindingKind::NameSigns => sprintf('Its name holds %s, on which some programs and players choke.', $finding->text('what')),
            FindingKind::LongName => sprintf('Its name takes %d bytes; some programs and players stop at %d.',
                (int) $finding->number('bytes'),
                (int) $finding->number('most')),
            FindingKind::TagSigns => sprintf('Its tags hold %s (in %s), on which some programs and players choke.', $finding->text('what'),
                $finding->text('fields')),
            FindingKind::SoundLate => sprintf('The sound of track %d begins %.3f s after the picture.', $track,
                $finding->number('seconds')),
            FindingKind::SoundShort => sprintf('The sound of track %d ends %.1f s before the picture does.', $track,
                $finding->number('seconds')),
            FindingKind::PreEmphasis => sprintf('%s of this disc %s recorded with pre-emphasis: played as it is, %s too bright.',
                $finding->number('tracks') <= 1 ? 'One track' : $number('tracks').' tracks',
                $finding->number('tracks') <= 1 ? 'was' : 'were',
                $finding->number('tracks') <= 1 ? 'it sounds' : 'they sound'),
            FindingKind::LowRate => sprintf('The sound of track %d takes %.0f kbit/s; where it is not silent, that is so little that '
                .'it can be heard.', $track, $finding->number('kbps')),
            FindingKind::Silent => sprintf('Sound track %d is silent from start to end.', $track),
            FindingKind::SilentSide => sprintf('The %s side of track %d is silent; all of its sound is on the %s.', $finding->text('side'),
                $track, $finding->text('good')),
            FindingKind::IdenticalSides => sprintf('Both sides of track %d are the same: it is mono that takes the room of stereo.',
                $track),
            FindingKind::Flipped => sprintf('One side of track %d is flipped in polarity: on one speaker or in mono, the sound nearly '
                .'vanishes.', $track),
            FindingKind::TwoMicrophones => self::twoMicrophones($finding, $track),
            FindingKind::Clipped => self::clipped($finding, $track),
            FindingKind::LowLevel => sprintf('Track %d is very low: its peak is %.1f dBFS%s.', $track, $finding->number('peak'),
                isset($finding->values['lufs']) ? sprintf(', its loudness %.0f LUFS', $finding->number('lufs')) : ''),
        };
    }

    /** What to do about it. */
    public static function remedy(Finding $finding): string
    {
        return match (isset($finding->values['says']) ? FindingKind::Other : $finding->kind) {
            FindingKind::Other => $finding->text('remedy'),
            FindingKind::AnotherRecording => 'Divide the file there, and bring in both parts.',
            FindingKind::OtherContent => 'Listen whether something is missing; if so, divide the file there, or copy it again.',
            FindingKind::TimeBeginsAnew => 'Look whether sound and picture still fit behind that place; if not, divide the file there.',
            FindingKind::CutShort => $finding->text('unit') === 'seconds' ? 'Copy it again from where it came from, or make what is there.'
                : 'Copy it again if the original is longer, or make what is there.',
            FindingKind::NeverFinished => $finding->text('found') === 'lengths' ? 'Make it anew; the result has right lengths.'
                : 'Copy it again if the original is longer, or make what is there.',
            FindingKind::EndsWithinPart, FindingKind::BeginsInFrame => 'Nothing needs to be done.',
            FindingKind::Protected => 'Ask whoever sold it for a copy without protection.',
            FindingKind::NoSound => 'Check the camera’s settings, or bring in the recording that was made beside it; the picture can still '
                .'go into another container.',
            FindingKind::SetUpMissing => 'Copy the file again from where it came from, or export it anew from the program that made it.',
            FindingKind::CodecNotDecodable => 'It can be copied untouched where a container carries it, such as Matroska sound; or '
                .'export it from the program that made it in another format, such as AAC or PCM; or name a program that decodes it in the '
                .'settings.',
            FindingKind::NoSamples => 'Copy the file again from where it came from.',
            FindingKind::SeveralSoundTracks => 'Choose on the order sheet.',
            FindingKind::ExtensionDiffers => $finding->shaping === [] ? 'Nothing needs to be done here: Octavox goes by the content.'
                : 'Copy it under its true extension.',
            FindingKind::NameSigns => 'Clean the name of the result.',
            FindingKind::LongName => 'Name the result otherwise.',
            FindingKind::TagSigns => 'Clean the tags of the result.',
            FindingKind::SoundLate => 'Nothing needs to be done: what is made here begins with the picture, with silence first.',
            FindingKind::SoundShort => 'Check whether the recording broke off; what is there can be used.',
            FindingKind::PreEmphasis => 'Take it off where the disc has it.',
            FindingKind::LowRate => 'Look for the original; a larger format made of this one sounds no better.',
            FindingKind::Silent => 'Check whether the microphone was on; another track or another recording may have the sound.',
            FindingKind::SilentSide => sprintf('Put the %s side on both.', $finding->text('good')),
            FindingKind::IdenticalSides => 'Make it mono; nothing is lost.',
            FindingKind::Flipped => 'Flip the right side back.',
            FindingKind::TwoMicrophones => 'Split them into two mono files.',
            FindingKind::Clipped => 'What is cut off cannot be brought back; use another recording of that moment if there is one.',
            FindingKind::LowLevel => 'Raise it until its peak is at −1 dBFS.',
        };
    }

    private static function cutShort(Finding $finding): string
    {
        return match ($finding->text('unit')) {
            '' => 'The file ends before the recording does; what is there can be used.',
            'seconds' => sprintf('The file ends before its sound does, as after a copy that broke off: of %.1f s there are %.1f s.',
                $finding->number('announced'), $finding->number('there')),
            default => sprintf('The file announces %s %s but %s; what is there can be used.', number_format($finding->number('announced')),
                $finding->text('unit'), $finding->text('unit') === 'samples'
                    ? 'only '.number_format($finding->number('there')).' are there' : 'has only '.number_format($finding->number('there'))),
        };
    }

    private static function twoMicrophones(Finding $finding, int $track): string
    {
        $gap = $finding->number('gap');
        $reasons = array_filter([
            sprintf('their waves are hardly alike (%.2f)', $finding->number('alike')),
            abs($gap) > 2.0 ? sprintf('the %s is %.0f dB louder', $gap > 0 ? 'left' : 'right', abs($gap)) : '',
            $finding->number('unsteady') > 4.0 ? 'now one leads, now the other' : '',
            $finding->number('timbre') > 3.0 ? 'they sound different' : '',
        ]);
        $sure = $finding->number('sure');

        return sprintf('Left and right of track %d are %s two microphones and no stereo image (%d %% sure): %s.', $track,
            $sure > 0.85 ? 'almost certainly' : 'probably', (int) round(100 * $sure), implode(', ', $reasons));
    }

    private static function clipped(Finding $finding, int $track): string
    {
        $times = (int) $finding->number('times');

        return sprintf('Track %d clips %s: at %s%s.', $track, $times === 1 ? 'once' : number_format($times).' times', $finding->text('at'),
            $finding->text('later'));
    }
}
