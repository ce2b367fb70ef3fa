<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Media\LanguageCode;
use Octavox\Core\Sound\InvalidLevel;
use Octavox\Core\Sound\LevelKind;
use Octavox\Core\Sound\LevelTarget;

/** Puts words to the steps of plans and to what is not possible: the one place that does. */
final class PlanWords
{
    /**
     * @return list<string> all steps; those of each sound of a video in one
     *
     * @throws InvalidLevel
     */
    public static function steps(Plan $plan): array
    {
        $words = [];
        foreach ($plan->steps as $step) {
            if ($step->sound === null || ! isset($plan->sounds[$step->sound])) {
                $words[] = self::step($step);

                continue;
            }
            $key = 'sound '.$step->sound;
            $words[$key] = isset($words[$key]) ? $words[$key].', '.self::step($step)
                : sprintf('sound track %s: %s', implode(' and ', $plan->sounds[$step->sound]->tracks()), self::step($step));
        }

        return array_values($words);
    }

    /**
     * @return list<string>
     *
     * @throws InvalidLevel
     */
    public static function warnings(Plan $plan): array
    {
        return array_values(array_unique(array_map(self::step(...), $plan->warnings)));
    }

    /** @throws InvalidLevel */
    public static function step(Step $step): string
    {
        return match ($step->kind) {
            StepKind::CopyPicture => sprintf('the %s picture is copied untouched', $step->text('format')),
            StepKind::CopySound => sprintf('the %s sound is copied untouched', $step->text('format')),
            StepKind::CutExact => 'exact to the sample',
            StepKind::CutMoved => sprintf('on frame borders: it begins %.1f ms early and ends %.1f ms late', $step->float('early'),
                $step->float('late')),
            StepKind::Piece => sprintf('from %s to %s', $step->text('from'), $step->text('until')),
            StepKind::Pieces => sprintf('%d pieces, %s together', $step->number('count'), $step->text('total')),
            StepKind::WholeFrames => sprintf('whole frames: %s samples more than the source presents',
                number_format($step->number('samples'))),
            StepKind::EnoughRate => sprintf('%d kbit/s, with which %s loses nothing more to the ear of %.0f kbit/s of %s',
                $step->number('kbps'), $step->text('format'), $step->float('own'), $step->text('source')),
            StepKind::LateStart => self::lateStart($step->number('samples'), $step->number('rate')),
            StepKind::Decode => 'decode '.$step->text('format').($step->number('tracks') > 1
                ? sprintf(' of %d tracks together', $step->number('tracks')) : ''),
            StepKind::SilenceBefore => sprintf('%.3f s of silence first, so that it starts with the picture', $step->float('seconds')),
            StepKind::DropBefore => sprintf('leave out %.3f s before the picture starts', $step->float('seconds')),
            StepKind::SilenceAfter => sprintf('%.3f s of silence at the end, as long as %s', $step->float('seconds'),
                isset($step->values['length']) ? 'is asked' : 'the picture'),
            StepKind::DropAfter => sprintf('leave out %.3f s after the picture has ended', $step->float('seconds')),
            StepKind::Route => self::route($step->texts('channels'), $step->text('layout')),
            StepKind::Mix => $step->text('from').' to '.$step->text('layout'),
            StepKind::Label => '“'.$step->text('label').'”',
            StepKind::Deemphasis => 'pre-emphasis taken off',
            StepKind::Fade => implode(', ', array_filter([self::fade('in', $step->float('in')), self::fade('out', $step->float('out'))])),
            StepKind::Level => self::level(LevelTarget::parse($step->text('target'))),
            StepKind::Resample => self::resample($step->number('from'), $step->number('rate')),
            StepKind::Dither => sprintf('dither to %d bits', $step->number('bits')).($step->number('of') > 0
                ? sprintf(' of %d', $step->number('of')) : ''),
            StepKind::LossyAgain => 'compressed with loss a second time',
            StepKind::Encode => self::encode($step),
            StepKind::DropChapters => sprintf('without chapters: %s has no place for them', $step->text('format')),
            StepKind::DropTags => sprintf('without %s: %s has no place for %s', implode(', ', array_map(
                fn (string $field): string => str_replace('_', ' ', $field), $step->texts('fields'))), $step->text('format'),
                count($step->texts('fields')) === 1 ? 'it' : 'them'),
            StepKind::CopyAuxiliary => self::auxiliary($step).' copied',
            StepKind::DropAuxiliary => sprintf('%s left out: %s has no place for “%s”', self::auxiliary($step), $step->text('container'),
                $step->text('coding')),
            StepKind::FilledSilence => sprintf('%s of it are silence that is filled in, because the file’s times leave them open.',
                $step->text('time')),
            StepKind::AssumedPlaces => sprintf(
                'The source does not say where its %d channels belong; they are taken as %s, in the order of WAV.%s If that is not so, '
                    .'say which layout they are, or make a file of each.',
                count($step->texts('channels')), implode(' ', $step->texts('channels')), $step->number('narrow') === 1
                    ? ' LFE may keep its low frequencies alone.' : '',
            ),
            StepKind::RaisedRate => sprintf(
                '%d kbit/s are made of %.0f kbit/s: the file gets larger, the sound no better. Leave the bit rate to the source, or '
                    .'choose a smaller one.',
                $step->number('kbps'), $step->float('own'),
            ),
            StepKind::DoubtfulSound => $step->text('says'),
        };
    }

    public static function level(LevelTarget $target): string
    {
        return match ($target->kind) {
            LevelKind::Gain => sprintf('%+.1f dB', $target->value),
            LevelKind::Peak => sprintf('peak at %.1f dBFS', $target->value),
            LevelKind::Rms => sprintf('RMS at %.1f dBFS, true peak at most %.1f dBFS', $target->value, $target->ceiling),
            LevelKind::Loudness => sprintf('loudness at %.1f LUFS, true peak at most %.1f dBFS', $target->value, $target->ceiling),
        };
    }

    public static function violation(Violation $violation): string
    {
        return match ($violation->rule) {
            ViolationRule::NoFormat => sprintf('There is no format called “%s”; these are there: %s.', $violation->text('format'),
                implode(', ', $violation->nearest)),
            ViolationRule::SoundAlone => sprintf('%s holds sound alone; where the picture is to be kept choose one of these: %s.',
                $violation->text('format'), implode(', ', $violation->nearest)),
            ViolationRule::PictureLeft => sprintf('%s is a kind of video; where the picture is to be left out choose one of these: %s.',
                $violation->text('format'), implode(', ', $violation->nearest)),
            ViolationRule::OtherCodec => sprintf('%s is not made with “%s” in it; leave the codec out, or choose another format.',
                $violation->text('format'), $violation->text('codec')),
            ViolationRule::NoSound => 'This file has no sound track, so there is no sound to take from it; bring in the recording that '
                .'was made beside it.',
            ViolationRule::NoTrack => sprintf('There is no sound track %d in this file; choose one of these: %s.',
                $violation->number('track'), implode(', ', $violation->nearest)),
            ViolationRule::NoLanguage => sprintf(
                'There is no sound track in the language %s in this file; it has these: %s.',
                LanguageCode::name($violation->text('language')), self::languages($violation),
            ),
            ViolationRule::EmptyTrack => sprintf('Track %d holds no sound at all, so nothing can be made of it; copy the file again '
                .'from where it came from.',
                $violation->number('track')),
            ViolationRule::TooShort => sprintf('What is asked of track %d is shorter than one sample at %s Hz, so nothing would be left '
                .'of it; choose a longer piece or a higher rate.', $violation->number('track'), number_format($violation->number('rate'))),
            ViolationRule::Stopped => $violation->text('says').' '.$violation->text('remedy'),
            ViolationRule::Channels => sprintf(
                '%s carries %d %s at most, but the sound is %s; ask for %s, or for a format that carries it, such as WAV.',
                $violation->text('format'), $violation->number('most'),
                $violation->number('most') === 1 ? 'channel' : 'channels', $violation->text('layout'), implode(' or ', $violation->nearest),
            ),
            ViolationRule::NoPicture => sprintf('There is no picture in this file, so it cannot become %s; ask for a sound format instead.',
                $violation->text('container')),
            ViolationRule::Picture => sprintf(
                'The picture is %s, which cannot be copied as it is into %s; choose another kind of video, or take only the sound.',
                $violation->text('picture'), $violation->text('container'),
            ),
            ViolationRule::VideoSound => sprintf('%s cannot carry %s beside its picture; choose another sound format for it.',
                $violation->text('container'), $violation->text('format')),
            ViolationRule::OnlyKept => sprintf(
                '%s can be copied untouched from a source that has it, but not made of %s here; choose a format that can be made, such '
                    .'as FLAC or WAV.',
                $violation->text('format'), $violation->text('source'),
            ),
            ViolationRule::Silence => sprintf(
                'Track %d would be %s of silence with hardly any sound in it, which is most likely a mistake in the file’s times; take '
                    .'the sound without its picture out of another copy.',
                $violation->number('track'), self::hours((float) ($violation->values['hours'] ?? 0.0)),
            ),
            ViolationRule::VideoPieces => 'Pictures are kept whole, so a video cannot be cut into pieces here; take its sound alone, or '
                .'leave the pieces out.',
            ViolationRule::VideoLength => 'Beside a picture each sound track stays as long as it is; leave the length to the sound.',
            ViolationRule::NotAlike => sprintf('Track %d cannot be joined with the others: tracks that become one sound must be of one '
                .'rate and all be decodable.',
                $violation->number('track')),
            ViolationRule::NoLength => sprintf('%s has no picture whose length is known, so its sound cannot be made as long as that; '
                .'leave the length to the sound.', $violation->text('name')),
            ViolationRule::LengthOfPieces => sprintf('A length of %s can be given to the whole or to one piece that lasts at least as '
                .'long, not to several; leave the length to the sound, or leave the end of the piece open.', $violation->text('length')),
            ViolationRule::RateBeyond => sprintf('A rate of %s Hz cannot be made; choose one between 4,000 and 384,000 Hz.',
                number_format($violation->number('rate'))),
            ViolationRule::Rate => sprintf(
                '%s has no rate of %s Hz; the nearest it has: %s Hz.', $violation->text('format'),
                number_format($violation->number('rate')),
                implode(' and ', array_map(fn (int|string $rate): string => number_format((int) $rate), $violation->nearest)),
            ),
            ViolationRule::BitDepth => $violation->nearest === []
                ? sprintf('%s has no bit depth to choose, so it cannot be made with %d bits; leave the bits out.',
                    $violation->text('format'), $violation->number('bits'))
                : sprintf('%s is not made with %d bits; the nearest it has: %s bits.', $violation->text('format'),
                    $violation->number('bits'), implode(' and ', $violation->nearest)),
            ViolationRule::BitRate => self::bitRate($violation),
            ViolationRule::NameField => sprintf('There is no field %s for names; these are there: %s.', $violation->text('field'),
                implode(' ', array_map(fn (int|string $name): string => '{'.$name.'}', $violation->nearest))),
            ViolationRule::VariableRate => sprintf('%s has no variable rate here; choose a bit rate instead, or MP3 or Vorbis.',
                $violation->text('format')),
            ViolationRule::RateMode => $violation->nearest === []
                ? sprintf('%s has no bit rate to choose; leave out how it is held.', $violation->text('format'))
                : sprintf('%s is not made here with %s bit rate; it has: %s.', $violation->text('format'),
                    $violation->text('mode') === 'average' ? 'an average' : 'a constant', implode(' and ', $violation->nearest)),
            ViolationRule::EncoderSetting => sprintf('%s has no choice of %s; leave it out, or choose another format.',
                $violation->text('format'), $violation->text('setting')),
            ViolationRule::Compression => sprintf('%s has no level of compression %d; the nearest it has: %s.', $violation->text('format'),
                $violation->number('level'), implode(' and ', $violation->nearest)),
        };
    }

    private static function bitRate(Violation $violation): string
    {
        if ($violation->nearest === []) {
            return sprintf('%s has no bit rate to choose, so it cannot be made with %d kbit/s; leave the bit rate out.',
                $violation->text('format'), $violation->number('kbps'));
        }

        return sprintf(
            '%s is not made with %d kbit/s at %s Hz and %d %s; the nearest it has: %s kbit/s.', $violation->text('format'),
            $violation->number('kbps'),
            number_format($violation->number('rate')), $violation->number('channels'),
            $violation->number('channels') === 1 ? 'channel' : 'channels', $violation->nearest[0],
        );
    }

    /** What a file has no place to say of itself: who makes it says it, and who reads the receipt. */
    public static function lateStart(int $samples, int $rate): string
    {
        return sprintf('other programs begin it %s samples (%.1f ms) late, because this kind of file has no place that says '
            .'what its encoder puts first', number_format($samples), 1000 * $samples / max(1, $rate));
    }

    private static function hours(float $hours): string
    {
        return sprintf($hours < 100 ? '%.1f hours' : '%.3g hours', $hours);
    }

    private static function languages(Violation $violation): string
    {
        return implode(', ', array_map(fn (int|string $language): string => $language === '' ? 'not stated'
            : LanguageCode::name((string) $language), $violation->nearest));
    }

    /** @param  list<string>  $channels  what each channel of the result takes */
    private static function route(array $channels, string $layout): string
    {
        $isSame = count($channels) > 1 && count(array_unique($channels)) === 1;

        return implode(', ', array_unique($channels)).' to '.($isSame ? 'both sides' : $layout);
    }

    private static function fade(string $way, float $seconds): string
    {
        return $seconds > 0 ? sprintf('fade %s over %.2f s', $way, $seconds) : '';
    }

    private static function resample(int $from, int $to): string
    {
        return self::kilohertz($from).' to '.self::kilohertz($to).($to < $from
            ? ', nothing above '.self::kilohertz(intdiv($to, 2)).' is left' : '');
    }

    private static function kilohertz(int $rate): string
    {
        return rtrim(rtrim(number_format($rate / 1000, 3, '.', ''), '0'), '.').' kHz';
    }

    private static function encode(Step $step): string
    {
        $is = fn (string $name): bool => isset($step->values[$name]);

        return implode(', ', array_filter([
            match (true) {
                $is('quality') => sprintf('encode %s, variable rate %d', $step->text('format'), $step->number('quality')),
                $step->number('kbps') > 0 => sprintf('encode %s at %d kbit/s', $step->text('format'), $step->number('kbps')),
                $is('lossless') => 'write '.$step->text('format'),
                default => 'encode '.$step->text('format'),
            },
            $is('mode') ? ($step->text('mode') === 'average' ? 'on average' : 'constant') : '',
            $is('stereo') ? $step->text('stereo').' stereo' : '',
            $is('compression') ? 'compression '.$step->number('compression') : '',
            $is('checksums') && $step->number('checksums') > 0 ? 'with checksums' : '',
        ]));
    }

    private static function auxiliary(Step $step): string
    {
        $language = $step->text('language');

        return $step->text('auxiliary') === 'timecode' ? 'the time code'
            : sprintf('subtitles %d%s', $step->number('track'), $language === '' ? '' : ' ('.LanguageCode::name($language).')');
    }
}
