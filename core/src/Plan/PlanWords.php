<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Media\LanguageCode;
use Octavox\Core\Sound\InvalidLevel;
use Octavox\Core\Sound\LevelKind;
use Octavox\Core\Sound\LevelTarget;

/** Puts words to the steps of plans: the one place that does. */
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
        $kind = $step->kind;

        return match (true) {
            $kind instanceof Steps\CopyPicture => sprintf('the %s picture is copied untouched', $kind->format),
            $kind instanceof Steps\CopySound => sprintf('the %s sound is copied untouched', $kind->format),
            $kind instanceof Steps\CutExact => 'exact to the sample',
            $kind instanceof Steps\CutMoved => sprintf('on frame borders: it begins %.1f ms early and ends %.1f ms late', $kind->early,
                $kind->late),
            $kind instanceof Steps\Piece => sprintf('from %s to %s', $kind->from, $kind->until),
            $kind instanceof Steps\Pieces => sprintf('%d pieces, %s together', $kind->count, $kind->total),
            $kind instanceof Steps\WholeFrames => sprintf('whole frames: %s samples more than the source presents',
                number_format($kind->samples)),
            $kind instanceof Steps\EnoughRate => sprintf('%d kbit/s, enough for %s to lose nothing more audible of %.0f kbit/s of %s',
                $kind->kbps, $kind->format, $kind->own, $kind->source),
            $kind instanceof Steps\LateStart => self::lateStart($kind->samples, $kind->rate),
            $kind instanceof Steps\Decode => 'decode '.$kind->format.($kind->tracks > 1
                ? sprintf(' of %d tracks together', $kind->tracks) : ''),
            $kind instanceof Steps\SilenceBefore => sprintf('%.3f s of silence first, so that it starts with the picture', $kind->seconds),
            $kind instanceof Steps\DropBefore => sprintf('leave out %.3f s before the picture starts', $kind->seconds),
            $kind instanceof Steps\SilenceAfter => sprintf('%.3f s of silence at the end, as long as %s', $kind->seconds,
                $kind->length !== null ? 'is asked' : 'the picture'),
            $kind instanceof Steps\DropAfter => sprintf('leave out %.3f s after the picture has ended', $kind->seconds),
            $kind instanceof Steps\Route => self::route($kind->channels, $kind->layout),
            $kind instanceof Steps\Mix => $kind->from.' to '.$kind->layout,
            $kind instanceof Steps\Label => '“'.$kind->label.'”',
            $kind instanceof Steps\Deemphasis => 'pre-emphasis taken off',
            $kind instanceof Steps\Fade => implode(', ', array_filter([self::fade('in', $kind->in), self::fade('out', $kind->out)])),
            $kind instanceof Steps\Level => self::level(LevelTarget::parse($kind->target)),
            $kind instanceof Steps\Resample => self::resample($kind->from, $kind->rate),
            $kind instanceof Steps\Dither => sprintf('dither to %d bits', $kind->bits).($kind->of > 0
                ? sprintf(' of %d', $kind->of) : ''),
            $kind instanceof Steps\LossyAgain => 'compressed with loss a second time',
            $kind instanceof Steps\Encode => self::encode($kind),
            $kind instanceof Steps\DropChapters => sprintf('without chapters: %s has no place for them', $kind->format),
            $kind instanceof Steps\DropTags => sprintf('without %s: %s has no place for %s', implode(', ', array_map(
                fn (string $field): string => str_replace('_', ' ', $field), $kind->fields)), $kind->format,
                count($kind->fields) === 1 ? 'it' : 'them'),
            $kind instanceof Steps\CopyAuxiliary => self::auxiliary($kind).' copied',
            $kind instanceof Steps\DropAuxiliary => sprintf('%s left out: %s has no place for “%s”', self::auxiliary($kind), $kind
                ->container,
                $kind->coding),
            $kind instanceof Steps\FilledSilence => sprintf('%s of it is silence, filled in where the file’s timestamps leave gaps.',
                $kind->time),
            $kind instanceof Steps\AssumedPlaces => sprintf(
                'The source does not say where its %d channels belong; they are taken as %s, in the order of WAV.%s If that is wrong, '
                    .'choose their layout, or make a file of each.',
                count($kind->channels), implode(' ', $kind->channels), $kind->narrow
                    ? ' LFE may keep its low frequencies alone.' : '',
            ),
            $kind instanceof Steps\RaisedRate => sprintf(
                '%d kbit/s is made from %.0f kbit/s: the file gets larger, the sound no better. Leave the bit rate to the source, or '
                    .'choose a lower one.',
                $kind->kbps, $kind->own,
            ),
            $kind instanceof Steps\DoubtfulSound => $kind->says,
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

    /** What a file has no place to say of itself: who makes it says it, and who reads the receipt. */
    public static function lateStart(int $samples, int $rate): string
    {
        return sprintf('other programs start it %s samples (%.1f ms) late, because this kind of file cannot say what its encoder adds at '
            .'the start', number_format($samples), 1000 * $samples / max(1, $rate));
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

    private static function encode(Steps\Encode $encode): string
    {
        return implode(', ', array_filter([
            match (true) {
                $encode->quality !== null => sprintf('encode %s, variable rate %d', $encode->format, $encode->quality),
                $encode->kbps > 0 => sprintf('encode %s at %d kbit/s', $encode->format, $encode->kbps),
                $encode->lossless === true => 'write '.$encode->format,
                default => 'encode '.$encode->format,
            },
            $encode->mode === null ? '' : ($encode->mode === 'average' ? 'on average' : 'constant'),
            $encode->stereo === null ? '' : $encode->stereo.' stereo',
            $encode->compression === null ? '' : 'compression '.$encode->compression,
            $encode->checksums === true ? 'with checksums' : '',
        ]));
    }

    private static function auxiliary(Steps\CopyAuxiliary|Steps\DropAuxiliary $step): string
    {
        return $step->auxiliary === 'timecode' ? 'the time code'
            : sprintf('subtitles %d%s', $step->track, $step->language === '' ? '' : ' ('.LanguageCode::name($step->language).')');
    }
}
