<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Media\LanguageCode;

/** Puts words to what is not possible: the one place that does. */
final class ViolationWords
{
    public static function says(Violation $violation): string
    {
        return match (true) {
            $violation instanceof Violations\NoFormat => sprintf('There is no format called “%s”; these are there: %s.', $violation->format,
                implode(', ', $violation->nearest)),
            $violation instanceof Violations\SoundAlone => sprintf('%s holds sound alone; where the picture is to be kept choose one of '
                .'these: %s.',
                $violation->format, implode(', ', $violation->nearest)),
            $violation instanceof Violations\PictureLeft => sprintf('%s is a kind of video; where the picture is to be left out choose '
                .'one of these: %s.',
                $violation->format, implode(', ', $violation->nearest)),
            $violation instanceof Violations\OtherCodec => sprintf('%s is not made with “%s” in it; leave the codec out, or choose '
                .'another format.',
                $violation->format, $violation->codec),
            $violation instanceof Violations\NoSound => 'This file has no sound track, so there is no sound to take from it; bring in '
                .'the recording that '
                .'was made beside it.',
            $violation instanceof Violations\NoTrack => sprintf('There is no sound track %d in this file; choose one of these: %s.',
                $violation->track, implode(', ', $violation->nearest)),
            $violation instanceof Violations\NoLanguage => sprintf(
                'There is no sound track in the language %s in this file; it has these: %s.',
                LanguageCode::name($violation->language), self::languages($violation),
            ),
            $violation instanceof Violations\EmptyTrack => sprintf('Track %d holds no sound at all, so nothing can be made of it; copy '
                .'the file again '
                .'from where it came from.',
                $violation->track),
            $violation instanceof Violations\TooShort => sprintf('What is asked of track %d is shorter than one sample at %s Hz, so '
                .'nothing would be left '
                .'of it; choose a longer piece or a higher rate.', $violation->track, number_format($violation->rate)),
            $violation instanceof Violations\Stopped => $violation->says.' '.$violation->remedy,
            $violation instanceof Violations\Channels => sprintf(
                '%s carries %d %s at most, but the sound is %s; ask for %s, or for a format that carries it, such as WAV.',
                $violation->format, $violation->most,
                $violation->most === 1 ? 'channel' : 'channels', $violation->layout, implode(' or ', $violation->nearest),
            ),
            $violation instanceof Violations\NoPicture => sprintf('There is no picture in this file, so it cannot become %s; ask for a '
                .'sound format instead.',
                $violation->container),
            $violation instanceof Violations\Picture => sprintf(
                'The picture is %s, which cannot be copied as it is into %s; choose another kind of video, or take only the sound.',
                $violation->picture, $violation->container,
            ),
            $violation instanceof Violations\VideoSound => sprintf('%s cannot carry %s beside its picture; choose another sound format '
                .'for it.',
                $violation->container, $violation->format),
            $violation instanceof Violations\OnlyKept => sprintf(
                '%s can be copied untouched from a source that has it, but not made of %s here; choose a format that can be made, such '
                    .'as FLAC or WAV.',
                $violation->format, $violation->source,
            ),
            $violation instanceof Violations\Silence => sprintf(
                'Track %d would be %s of silence with hardly any sound in it, which is most likely a mistake in the file’s times; take '
                    .'the sound without its picture out of another copy.',
                $violation->track, self::hours($violation->hours),
            ),
            $violation instanceof Violations\VideoPieces => 'Pictures are kept whole, so a video cannot be cut into pieces here; take '
                .'its sound alone, or '
                .'leave the pieces out.',
            $violation instanceof Violations\VideoLength => 'Beside a picture each sound track stays as long as it is; leave the length '
                .'to the sound.',
            $violation instanceof Violations\NotAlike => sprintf('Track %d cannot be joined with the others: tracks that become one '
                .'sound must be of one '
                .'rate and all be decodable.',
                $violation->track),
            $violation instanceof Violations\NoLength => sprintf('%s has no picture whose length is known, so its sound cannot be made '
                .'as long as that; '
                .'leave the length to the sound.', $violation->name),
            $violation instanceof Violations\LengthOfPieces => sprintf('A length of %s can be given to the whole or to one piece that '
                .'lasts at least as '
                .'long, not to several; leave the length to the sound, or leave the end of the piece open.', $violation->length),
            $violation instanceof Violations\RateBeyond => sprintf('A rate of %s Hz cannot be made; choose one between 4,000 and 384,000 '
                .'Hz.',
                number_format($violation->rate)),
            $violation instanceof Violations\Rate => sprintf(
                '%s has no rate of %s Hz; the nearest it has: %s Hz.', $violation->format,
                number_format($violation->rate),
                implode(' and ', array_map(fn (int $rate): string => number_format($rate), $violation->nearest)),
            ),
            $violation instanceof Violations\BitDepth => $violation->nearest === []
                ? sprintf('%s has no bit depth to choose, so it cannot be made with %d bits; leave the bits out.',
                    $violation->format, $violation->bits)
                : sprintf('%s is not made with %d bits; the nearest it has: %s bits.', $violation->format,
                    $violation->bits, implode(' and ', $violation->nearest)),
            $violation instanceof Violations\BitRate => self::bitRate($violation),
            $violation instanceof Violations\NameField => sprintf('There is no field %s for names; these are there: %s.', $violation->field,
                implode(' ', array_map(fn (string $name): string => '{'.$name.'}', $violation->nearest))),
            $violation instanceof Violations\VariableRate => sprintf('%s has no variable rate here; choose a bit rate instead, or MP3 or '
                .'Vorbis.',
                $violation->format),
            $violation instanceof Violations\RateMode => $violation->nearest === []
                ? sprintf('%s has no bit rate to choose; leave out how it is held.', $violation->format)
                : sprintf('%s is not made here with %s bit rate; it has: %s.', $violation->format,
                    $violation->mode === 'average' ? 'an average' : 'a constant', implode(' and ', $violation->nearest)),
            $violation instanceof Violations\EncoderSetting => sprintf('%s has no choice of %s; leave it out, or choose another format.',
                $violation->format, $violation->setting),
            $violation instanceof Violations\Compression => sprintf('%s has no level of compression %d; the nearest it has: %s.',
                $violation->format,
                $violation->level, implode(' and ', $violation->nearest)),
        };
    }

    private static function bitRate(Violations\BitRate $violation): string
    {
        if ($violation->nearest === []) {
            return sprintf('%s has no bit rate to choose, so it cannot be made with %d kbit/s; leave the bit rate out.',
                $violation->format, $violation->kbps);
        }

        return sprintf(
            '%s is not made with %d kbit/s at %s Hz and %d %s; the nearest it has: %s kbit/s.', $violation->format,
            $violation->kbps,
            number_format($violation->rate), $violation->channels,
            $violation->channels === 1 ? 'channel' : 'channels', $violation->nearest[0],
        );
    }

    private static function hours(float $hours): string
    {
        return sprintf($hours < 100 ? '%.1f hours' : '%.3g hours', $hours);
    }

    private static function languages(Violations\NoLanguage $violation): string
    {
        return implode(', ', array_map(fn (string $language): string => $language === '' ? 'not stated'
            : LanguageCode::name($language), $violation->nearest));
    }
}
