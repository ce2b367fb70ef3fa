<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Codec\Codec;
use Octavox\Core\Codec\CodecNotDecodable;
use Octavox\Core\Codec\Codecs;
use Octavox\Core\Codec\EncoderSetting;
use Octavox\Core\Codec\Mp3\Mp3Decoder;
use Octavox\Core\Codec\SampleKind;
use Octavox\Core\Codec\SoundForm;
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
        if (! Codecs::canDecode($from)) {
            throw CodecNotDecodable::named($from->label());
        }
        $layout = $wish->layout === null || $wish->layout->name() === $from->layout->name() ? $from->layout : $wish->layout;
        if ($layout->count() > $wish->format->mostChannels()) {
            throw CannotPlan::tooManyChannels($path, $wish->format->label(), $wish->format->mostChannels(), $layout->name());
        }
        if ($wish->bits !== null && ! in_array($wish->bits, self::WIDTHS, true)) {
            throw CannotPlan::bits($wish->bits);
        }
        Mix::between($from->layout, $layout);
        $form = $wish->format->form($from, self::rate($wish, $from->rate), $layout, $wish->bits);
        $setting = $wish->format->setting($wish->setting, $form);
        $moment = self::moment($source, $from->rate);
        $presented = array_sum(array_map(fn ($segment): int => $segment->length, $track->timeline->from($moment)));
        if ($presented === 0) {
            throw CannotPlan::emptyTrack($path, $track->number);
        }
        $kept = self::canKeep($track, $from, $form, $wish, $setting, $moment);
        $samples = Time::rescale($presented, $from->rate, $form->rate);
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
            $wish->existing, self::steps($from, $form, $setting, $kept, $dither, $track, $moment), $dither,
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

    /** The wished rate; without a wish the source's own, or the nearest that the format has. */
    private static function rate(Wish $wish, int $own): int
    {
        $rate = $wish->rate ?? $own;
        if ($wish->rate !== null && ($rate < 4000 || $rate > 384000)) {
            throw CannotPlan::rate($rate);
        }
        $possible = $wish->format->rates();
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

    private static function canKeep(Track $track, SoundForm $from, SoundForm $form, Wish $wish, EncoderSetting $setting, int $moment): bool
    {
        if (! $wish->format->carries($from) || $from->codec !== $form->codec || $from->rate !== $form->rate || ! $from->layout->equals($form->layout)) {
            return false;
        }
        $segments = $track->timeline->from($moment);
        if ($from->pcm !== null) {
            return $form->pcm !== null && $from->pcm->equals($form->pcm) && array_filter($segments, fn ($segment): bool => $segment->from === null) === [];
        }
        $delay = ($segments[0]->from ?? -1) - Mp3Decoder::DELAY;
        $own = $track->seconds() > 0 ? $track->codedBytes / $track->seconds() / 125 : 0;
        $asked = $setting->quality !== null ? 0 : $setting->kbps;

        // A lossy source is never made larger and called better: it stays as it is where it is small enough.
        return count($segments) === 1 && ($delay >= 0 && $delay < 4096 || $segments[0]->from === 0) && $own <= $asked * 1.02;
    }

    private static function narrows(SoundForm $from, SoundForm $form): bool
    {
        if ($form->pcm === null || $form->pcm->kind === SampleKind::Float || $form->pcm->bits > 24) {
            return false;
        }
        $untouched = $from->rate === $form->rate && $from->layout->count() === $form->layout->count();

        return ! ($untouched && $from->pcm !== null && $from->pcm->kind !== SampleKind::Float && ($from->pcm->bits <= $form->pcm->bits) && ! in_array($from->pcm->kind, [SampleKind::ALaw, SampleKind::MuLaw], true));
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

    /** @return list<string> */
    private static function steps(SoundForm $from, SoundForm $form, EncoderSetting $setting, bool $kept, bool $dither, Track $track, int $moment): array
    {
        if ($kept) {
            return ['the '.$from->label().' sound is copied untouched'];
        }
        $steps = ['decode '.$from->label()];
        $shift = $track->timeline->starts - $moment;
        if ($shift > 0) {
            $steps[] = sprintf('%.3f s of silence first, so that it starts with the picture', $shift / $from->rate);
        } elseif ($shift < 0) {
            $steps[] = sprintf('leave out %.3f s before the picture starts', -$shift / $from->rate);
        }
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
            $form->pcm !== null => 'write '.$form->label(),
            $setting->quality !== null => sprintf('encode %s, variable rate %d', $form->codec->label(), $setting->quality),
            default => sprintf('encode %s at %d kbit/s', $form->codec->label(), $setting->kbps),
        };

        return $steps;
    }

    private static function kilohertz(int $rate): string
    {
        return rtrim(rtrim(number_format($rate / 1000, 3, '.', ''), '0'), '.').' kHz';
    }
}
