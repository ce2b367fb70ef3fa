<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Codec\Codec;
use Octavox\Core\Codec\CodecNotDecodable;
use Octavox\Core\Codec\Codecs;
use Octavox\Core\Codec\EncoderSetting;
use Octavox\Core\Codec\SampleKind;
use Octavox\Core\Codec\SoundForm;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\Segment;
use Octavox\Core\Container\Track;
use Octavox\Core\Failure;
use Octavox\Core\Reading\Reading;
use Octavox\Core\Sound\Mix;
use Octavox\Core\Sound\Time;
use Octavox\Core\Tag\TagField;

/** Source + wish → the exact plan of one delivery, with the least change that gives what is wished. */
final class Planner
{
    private const WIDTHS = [8, 16, 24, 32];

    /** @throws Failure */
    public static function plan(Reading $source, Wish $wish): Plan
    {
        $path = $source->path;
        $obstacle = $source->obstacle();
        if ($obstacle !== null) {
            throw CannotPlan::stopped($path, $obstacle->says, $obstacle->remedy);
        }
        $track = self::track($source, $wish, $path);
        $from = $track->sound ?? throw CannotPlan::noSound($path);
        $layout = $wish->layout === null || $wish->layout->name() === $from->layout->name() ? $from->layout : $wish->layout;
        if ($layout->count() > $wish->format->abilities()->mostChannels) {
            throw CannotPlan::tooManyChannels($path, $wish->format->label(), $wish->format->abilities()->mostChannels, $layout->name());
        }
        if ($wish->bits !== null && ! in_array($wish->bits, self::WIDTHS, true)) {
            throw CannotPlan::bits($wish->bits);
        }
        Mix::between($from->layout, $layout);
        $form = $wish->format->form($from, self::possibleRate($wish->format, $wish->rate, $from->rate), $layout, $wish->bits);
        $setting = $wish->format->setting($wish->setting, $form);
        $moment = self::moment($source, $from->rate);
        $lasts = self::lasts($source, $wish, $from->rate);
        $segments = $track->timeline->from($moment, $lasts);
        $presented = self::lengthOf($segments);
        if ($presented === 0) {
            self::requireRemaking($from, $wish);
            throw CannotPlan::emptyTrack($path, $track->number);
        }
        $keptSamples = self::keptSamples($track, $segments, $from, $form, $wish, $setting);
        $kept = $keptSamples !== null;
        if (! $kept) {
            self::requireRemaking($from, $wish);
            $form = $form->withWidth(8 * intdiv($form->width + 7, 8));
        } elseif ($form->codec !== Codec::Pcm) {
            $form = $from;
        }
        $samples = $keptSamples ?? $wish->format->presented($form, Time::rescale($presented, $from->rate, $form->rate));
        $dither = ! $kept && self::narrows($from, $form);
        $bytes = match (true) {
            $kept && $form->codec !== Codec::Pcm => $track->codedBytes + 2048,
            default => $wish->format->predict($form, $setting, $samples, $source->tags),
        };

        return new Plan(
            $path, $source->bytes, $track->number, $moment,
            $kept ? Action::Kept : Action::Remade, $wish->format->name(), $form, $kept ? EncoderSetting::none() : $setting,
            $samples, $bytes, $source->tags, $wish->folder,
            $wish->name->fill(self::names($source, $track, $form)).'.'.$wish->format->extension(),
            $wish->existing, self::steps($from, $form, $setting, $kept, $dither, $track, $moment, $segments, $samples), $dither, $source->stated, lasts: $lasts,
        );
    }

    private static function track(Reading $source, Wish $wish, string $path): Track
    {
        $sound = $source->sound();
        if ($sound === []) {
            throw CannotPlan::noSound($path);
        }
        if ($wish->track === null) {
            return $sound[0];
        }
        foreach ($sound as $track) {
            if ($track->number === $wish->track) {
                return $track;
            }
        }

        throw CannotPlan::noSuchTrack($path, $wish->track, implode(', ', array_map(fn (Track $track): string => (string) $track->number, $sound)));
    }

    /**
     * The wished rate; without a wish the source's own, or the nearest that the format has.
     *
     * @throws CannotPlan
     */
    public static function possibleRate(OutputFormat $format, ?int $wished, int $own): int
    {
        $rate = $wished ?? $own;
        if ($wished !== null && ($rate < 4000 || $rate > 384000)) {
            throw CannotPlan::rate($rate);
        }
        $possible = $format->abilities()->rates;
        if ($possible === [] || in_array($rate, $possible, true)) {
            return $rate;
        }
        // The next higher one loses nothing; above the highest, the highest.
        foreach ($possible as $candidate) {
            if ($candidate >= $rate) {
                return $candidate;
            }
        }

        return $possible[count($possible) - 1];
    }

    /** Where the picture starts, so that sound and picture fit when both are laid at the same point. */
    private static function moment(Reading $source, int $rate): int
    {
        $picture = $source->picture()?->picture;

        return $picture === null ? 0 : (int) round($picture->starts * $rate);
    }

    /** @throws Failure where the sound cannot be decoded or the format cannot be encoded */
    private static function requireRemaking(SoundForm $from, Wish $wish): void
    {
        if (! Codecs::canDecode($from)) {
            throw CodecNotDecodable::named($from->label());
        }
        if (! $wish->format->abilities()->makes) {
            throw CannotPlan::onlyKept($wish->format->label(), $from->label());
        }
    }

    /**
     * How many samples the result presents where the packets can be kept as they are; null where they must be remade.
     *
     * @param  list<Segment>  $segments  what is presented of the track
     */
    private static function keptSamples(Track $track, array $segments, SoundForm $from, SoundForm $form, Wish $wish, EncoderSetting $setting): ?int
    {
        if (! $wish->format->carries($from) || $from->codec !== $form->codec || $from->rate !== $form->rate || ! $from->layout->sounds($form->layout)) {
            return null;
        }
        $length = self::lengthOf($segments);
        if ($from->pcm !== null) {
            return $form->pcm !== null && $from->pcm->equals($form->pcm) && $from->layout->placesOf($form->layout) === array_keys($form->layout->channels) && array_filter($segments, fn (Segment $segment): bool => $segment->from === null) === [] ? $length : null;
        }
        $narrower = $from->codec->isLossless() && $form->width !== $from->width;
        $own = $track->seconds() > 0 ? $track->codedBytes / $track->seconds() / 125 : 0;
        $asked = $setting->quality !== null ? 0 : $setting->kbps;
        // A lossy source is never made larger and called better: it stays as it is where it is small enough.
        $small = $from->codec->isLossless() || $wish->setting->isNone() || $own <= $asked * 1.02;
        if (count($segments) !== 1 || $segments[0]->from === null || $narrower || ! $small) {
            return null;
        }

        $kept = $wish->format->presentedKept($form, $track->timeline->coded, $segments[0]->from, $length);

        return $wish->length === Length::Sound || $kept === $length ? $kept : null;
    }

    /** Whether bits are lost that dither makes up for: whenever the result has fewer than 25 and is not just the source's own samples. */
    public static function narrows(SoundForm $from, SoundForm $form): bool
    {
        if (! $form->codec->isLossless() || $form->pcm?->kind === SampleKind::Float || $form->bits() > 24) {
            return false;
        }
        $whole = $from->codec->isLossless() && ! in_array($from->pcm?->kind, [SampleKind::Float, SampleKind::ALaw, SampleKind::MuLaw], true);
        $untouched = $from->rate === $form->rate && $from->layout->sounds($form->layout);

        return ! ($untouched && $whole && $from->bits() <= $form->bits());
    }

    /** @return array<string, string> */
    private static function names(Reading $source, Track $track, SoundForm $form): array
    {
        $tags = $source->tags;

        return [
            'stem' => pathinfo($source->path, PATHINFO_FILENAME),
            'track' => (string) $track->number,
            'number' => (string) $track->number,
            'title' => $tags->get(TagField::Title) ?? '',
            'artist' => $tags->get(TagField::Artist) ?? '',
            'layout' => $form->layout->name(),
            'rate' => (string) $form->rate,
        ];
    }

    /**
     * @param  list<Segment>  $segments  what is presented of the track
     * @return list<string>
     */
    private static function steps(SoundForm $from, SoundForm $form, EncoderSetting $setting, bool $kept, bool $dither, Track $track, int $moment, array $segments, int $samples): array
    {
        if ($kept) {
            $more = $samples - self::lengthOf($segments);

            return ['the '.$from->label().' sound is copied untouched', ...self::lengthened($track, $segments, $moment, $from->rate), ...($more > 0 ? [sprintf('whole frames: %s samples more than the source presents', number_format($more))] : [])];
        }
        $steps = ['decode '.$from->label()];
        $shift = $track->timeline->starts - $moment;
        if ($shift > 0) {
            $steps[] = sprintf('%.3f s of silence first, so that it starts with the picture', $shift / $from->rate);
        } elseif ($shift < 0) {
            $steps[] = sprintf('leave out %.3f s before the picture starts', -$shift / $from->rate);
        }
        array_push($steps, ...self::lengthened($track, $segments, $moment, $from->rate));
        if ($from->layout->count() !== $form->layout->count()) {
            $steps[] = $from->layout->name().' to '.$form->layout->name();
        }
        if ($from->rate !== $form->rate) {
            $steps[] = self::kilohertz($from->rate).' to '.self::kilohertz($form->rate);
        }
        if ($dither) {
            $steps[] = sprintf('dither to %d bits', $form->bits());
        }
        if (! $from->codec->isLossless() && ! $form->codec->isLossless()) {
            $steps[] = 'compressed with loss a second time';
        }
        $steps[] = match (true) {
            $form->codec->isLossless() => 'write '.$form->label(),
            $setting->isNone() => 'encode '.$form->codec->label(),
            $setting->quality !== null => sprintf('encode %s, variable rate %d', $form->codec->label(), $setting->quality),
            default => sprintf('encode %s at %d kbit/s', $form->codec->label(), $setting->kbps),
        };

        $more = $samples - Time::rescale(self::lengthOf($segments), $from->rate, $form->rate);
        if ($more > 0) {
            $steps[] = sprintf('whole frames: %s samples more than the source presents', number_format($more));
        }

        return $steps;
    }

    /**
     * What making it as long as the picture does to it.
     *
     * @param  list<Segment>  $segments  what is presented of the track
     * @return list<string>
     */
    private static function lengthened(Track $track, array $segments, int $moment, int $rate): array
    {
        $more = self::lengthOf($segments) - self::lengthOf($track->timeline->from($moment));

        return match (true) {
            $more > 0 => [sprintf('%.3f s of silence at the end, as long as the picture', $more / $rate)],
            $more < 0 => [sprintf('leave out %.3f s after the picture has ended', -$more / $rate)],
            default => [],
        };
    }

    /**
     * How long the result is to be, in samples of the source; null for as long as its sound.
     *
     * @throws CannotPlan where there is no picture to be as long as
     */
    private static function lasts(Reading $source, Wish $wish, int $rate): ?int
    {
        if ($wish->length === Length::Sound) {
            return null;
        }
        $picture = $source->picture()?->picture;
        $lasts = $picture === null ? 0 : (int) round($picture->seconds * $rate);

        return $lasts > 0 ? $lasts : throw CannotPlan::noLength($source->path);
    }

    /** @param  list<Segment>  $segments */
    private static function lengthOf(array $segments): int
    {
        return array_sum(array_map(fn (Segment $segment): int => $segment->length, $segments));
    }

    private static function kilohertz(int $rate): string
    {
        return rtrim(rtrim(number_format($rate / 1000, 3, '.', ''), '0'), '.').' kHz';
    }
}
