<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Codec\CodecNotDecodable;
use Octavox\Core\Codec\Codecs;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\LanguageCode;
use Octavox\Core\Media\Segment;
use Octavox\Core\Media\Track;
use Octavox\Core\Media\TrackKind;
use Octavox\Core\Reading\Reading;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Sound\Time;

/** Source + wish → the plan of a film: the picture kept bit for bit, every sound track kept where the container carries it. */
final class FilmPlanner
{
    /** Containers whose pictures can be copied out. */
    private const SOURCES = ['mp4', 'mov', 'm4a', '3gp', 'mkv', 'webm', 'mpeg-ts', 'mpeg-ps', 'avi', 'flv', 'asf'];

    /** Pictures that can be copied out of program and transport streams. */
    private const STREAMED = [Codec::H264, Codec::H265, Codec::Mpeg1Video, Codec::Mpeg2Video];

    /** @throws Failure */
    public static function plan(Reading $source, FilmWish $wish): Plan
    {
        $path = $source->path;
        $obstacle = $source->obstacle();
        if ($obstacle !== null) {
            throw CannotPlan::stopped($path, $obstacle->says, $obstacle->remedy);
        }
        $picture = $source->picture();
        if ($picture === null || $picture->picture === null) {
            throw CannotPlan::noPicture($path, $wish->film->label());
        }
        $copied = ! str_starts_with($source->container, 'mpeg-') || in_array($picture->picture->codec, self::STREAMED, true);
        if (! in_array($source->container, self::SOURCES, true) || ! $copied || ! $wish->film->carriesPicture($picture->picture->codec)) {
            throw CannotPlan::picture($path, $picture->picture->label, $wish->film->label());
        }
        $moment = fn (int $rate): int => (int) round($picture->picture->startOffset * $rate);
        $sounds = [];
        $warnings = [];
        $steps = [sprintf('the %s picture is copied untouched', $picture->picture->label)];
        $bytes = $picture->codedBytes > 0 ? $picture->codedBytes + 65_536 : max(0, $source->bytes - array_sum(array_map(fn (Track $track): int => $track->codedBytes, $source->sound())));
        foreach (self::tracks($source, $wish) as $track) {
            $from = $track->sound ?? throw CannotPlan::noSound($path);
            $own = $track;
            $others = $wish->joined[$track->number] ?? [];
            if ($others !== []) {
                $track = JoinedTracks::asOne($path, [$track, ...self::numbered($source, $others)], $moment($from->rate));
                $from = $track->sound ?? $from;
            }
            foreach (self::shaped($track, $from, $wish, $moment($from->rate), $path, $picture->picture->perSecond, $others) as $sound) {
                array_push($warnings, ...($sound->action === Action::Kept ? array_filter([$wish->film->doubts($from)], is_string(...)) : Planner::warnings($own, $from, $sound->audio, $sound->setting)));
                $sounds[] = $sound;
                $kept = $sound->action === Action::Kept;
                $steps[] = sprintf('sound track %s: %s', implode(' and ', [$track->number, ...$others]), $kept ? $from->label().' is copied untouched' : implode(', ', array_filter([$sound->shape->routing === null ? '' : Planner::routed($sound->shape->routing, $from->layout).($sound->shape->label === '' ? '' : ' “'.$sound->shape->label.'”'), $sound->shape->level?->says() ?? '', $from->label().' becomes '.$sound->audio->label().($sound->setting->kbps > 0 ? ' at '.$sound->setting->kbps.' kbit/s' : '')])));
                $bytes += $kept ? $track->codedBytes : ($wish->sound ?? $wish->film->encodes())->predict($sound->audio, $sound->setting, $sound->samples, $source->tags);
            }
        }
        $companions = [];
        foreach ($source->tracks as $track) {
            if ($track->coding !== '') {
                $what = $track->kind === TrackKind::Timecode ? 'the time code' : sprintf('subtitles %d%s', $track->number, $track->language === null ? '' : ' ('.LanguageCode::name($track->language).')');
                $carried = $wish->film->carriesCompanion($track->coding);
                $companions = $carried ? [...$companions, $track->number] : $companions;
                $steps[] = $carried ? $what.' copied' : sprintf('%s left out: %s has no place for “%s”', $what, $wish->film->label(), $track->coding);
            }
        }
        // A video without sound is as long as its picture, in milliseconds of no track.
        $main = array_shift($sounds) ?? new PlannedSound(0, Action::Kept, new AudioFormat(Codec::Unknown, 1000, Layout::mono()), RateControl::none(), (int) round($picture->seconds() * 1000), false);

        return new Plan(
            $path, $source->bytes, $main->track, $moment($source->track($main->track)->sound->rate ?? 1),
            $main->action, $wish->film->name(), $main->audio, $main->setting, $main->samples, $bytes, $source->tags, $wish->folder,
            $wish->name->fill(Planner::names($source, $main->track, $main->audio)).'.'.$wish->film->extension(),
            $wish->existing, $steps, $main->dither, $source->stated, $picture->number, $sounds, companions: $companions, shape: $main->shape, warnings: array_values(array_unique($warnings)),
        );
    }

    /** @return list<Track> */
    private static function tracks(Reading $source, FilmWish $wish): array
    {
        return $source->sound() === [] ? [] : self::numbered($source, $wish->tracks ?? array_map(fn (Track $track): int => $track->number, $source->sound()));
    }

    /**
     * @param  list<int>  $numbers
     * @return list<Track>
     *
     * @throws CannotPlan
     */
    private static function numbered(Reading $source, array $numbers): array
    {
        $tracks = [];
        foreach ($numbers as $number) {
            $track = $source->track($number);
            $tracks[] = $track?->sound !== null ? $track : throw CannotPlan::noSuchTrack($source->path, $number, implode(', ', array_map(fn (Track $track): string => (string) $track->number, $source->sound())));
        }

        return $tracks;
    }

    /**
     * @param  list<int>  $joined  numbers of the tracks that are in it
     * @return list<PlannedSound> what becomes of one track: several where its channels become tracks of their own
     */
    private static function shaped(Track $track, AudioFormat $from, FilmWish $wish, int $moment, string $path, float $frames, array $joined): array
    {
        if ($wish->shaping->pieces !== '') {
            throw CannotPlan::filmPieces($path);
        }
        $segments = $track->timeline->from($moment);
        $presented = Segment::total($segments);
        if (Segment::areEmpty($segments)) {
            throw CannotPlan::emptyTrack($path, $track->number);
        }
        Planner::requireSound($path, $track, $segments, $from->rate);

        return array_map(fn (Shape $shape): PlannedSound => self::sound($track, $from, $wish, $segments, $presented, $path, $shape->joining($joined)), $wish->shaping->shapes($from->layout, $from->rate, $presented, $frames));
    }

    /** @param  list<Segment>  $segments */
    private static function sound(Track $track, AudioFormat $from, FilmWish $wish, array $segments, int $presented, string $path, Shape $shape): PlannedSound
    {
        $untouched = ! $shape->changesSamples() && $wish->sound === null && $wish->layout === null && ($wish->rate === null || $wish->rate === $from->rate) && $wish->bits === null;
        if ($untouched && $wish->film->carriesSound($from) && self::isOneStretch($segments)) {
            return new PlannedSound($track->number, Action::Kept, $from, RateControl::none(), $segments[count($segments) - 1]->length, false);
        }
        if (! Codecs::canDecode($from)) {
            throw CodecNotDecodable::of($from);
        }
        $format = $wish->sound ?? $wish->film->encodes();
        $layout = $shape->routing->layout ?? $wish->layout ?? $from->layout;
        $layout = $layout->name() === $from->layout->name() ? $from->layout : $layout;
        if ($layout->count() > $format->capabilities()->mostChannels) {
            throw CannotPlan::tooManyChannels($path, $format->label(), $format->capabilities()->mostChannels, $layout->name());
        }
        EncoderChoice::requireBits($format, $wish->bits);
        $shape->mix($from->layout, $layout);
        $audio = $format->audio($from, EncoderChoice::rate($format, $wish->rate, $from->rate), $layout, $wish->bits);
        $audio = $audio->withBitDepth(8 * intdiv($audio->bitDepth + 7, 8));
        $shape = $shape->inOrderOf($audio->layout, $from->layout);
        if (! $format->capabilities()->makes || ! $wish->film->carriesSound($audio->codec === Codec::Pcm ? $audio : $audio->withConfig('x'))) {
            throw CannotPlan::filmSound($path, $wish->film->label(), $audio->label());
        }

        return new PlannedSound($track->number, Action::Remade, $audio, EncoderChoice::setting($format, $wish->setting, $audio, $track, $from), Time::rescale($presented, $from->rate, $audio->rate), Planner::narrows($from, $audio, $shape), $shape);
    }

    /**
     * One stretch of the coded sound, after silence or at once: what an edit or a time stamp can say.
     *
     * @param  list<Segment>  $segments
     */
    private static function isOneStretch(array $segments): bool
    {
        $coded = array_values(array_filter($segments, fn (Segment $segment): bool => $segment->from !== null));

        return count($coded) === 1 && $segments[count($segments) - 1]->from !== null && count($segments) <= 2;
    }
}
