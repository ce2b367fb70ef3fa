<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Codec\CodecNotDecodable;
use Octavox\Core\Codec\Codecs;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Fidelity;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\PresentationStart;
use Octavox\Core\Media\SampleKind;
use Octavox\Core\Media\Segment;
use Octavox\Core\Media\Track;
use Octavox\Core\Name\LegalName;
use Octavox\Core\Name\NamePattern;
use Octavox\Core\Reading\Reading;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Sound\Mix;
use Octavox\Core\Sound\NoStandardMix;
use Octavox\Core\Sound\Piece;
use Octavox\Core\Sound\Routing;
use Octavox\Core\Sound\Time;
use Octavox\Core\Sound\TimePosition;
use Octavox\Core\Tag\Chapter;
use Octavox\Core\Tag\TagField;

/** Source + wish → the exact plan of one delivery, with the least change that gives what is wished. */
final class Planner
{
    /** Seconds of silence that a file may ask for whatever else is in it. */
    private const MOST_SILENCE = 3600;

    /** How many times as long as its sound the silence of a file may be. */
    private const MUCH_MORE = 10;

    /** Seconds of silence that somebody should know of. */
    private const LONG_SILENCE = 10;

    /**
     * The first of what the wish gives; all there is where nothing is split.
     *
     * @throws Failure
     */
    public static function plan(Reading $source, Wish $wish): Plan
    {
        return self::plans($source, $wish)[0];
    }

    /**
     * One plan for each result: several where channels or pieces become files of their own.
     *
     * @return non-empty-list<Plan>
     *
     * @throws Failure
     */
    public static function plans(Reading $source, Wish $wish, CutFinder $cuts = new FrameBorders): array
    {
        $path = $source->path;
        $obstacle = $source->obstacle();
        if ($obstacle !== null) {
            throw CannotPlan::stopped($path, $obstacle->says, $obstacle->remedy);
        }
        $track = self::track($source, $wish, $path);
        $from = $track->sound ?? throw CannotPlan::noSound($path);
        $moment = PresentationStart::of($source->tracks, $from->rate);
        if ($wish->joined !== []) {
            $track = JoinedTracks::asOne($path, [$track, ...array_map(fn (int $number): Track => self::track($source, $wish->ofTrack($number), $path), $wish->joined)], $moment);
            $from = $track->sound ?? $from;
        }
        $lasts = self::lasts($source, $wish, $from->rate);
        $whole = $track->timeline->from($moment, $lasts);
        if (Segment::areEmpty($whole)) {
            self::requireRemaking($from, $wish);
            throw CannotPlan::emptyTrack($path, $track->number);
        }
        self::requireSound($path, $track, $whole, $from->rate);
        $plans = [];
        $shapes = $wish->shaping->shapes($from->layout, $from->rate, Segment::total($whole), $source->picture()->picture->perSecond ?? 0.0, self::chapters($source, $from->rate, $moment));
        foreach ($shapes as $shape) {
            $plans[] = self::shaped($source, $wish, $cuts, $track, $from, $shape->joining($wish->joined), $whole, $moment, $lasts, count($shapes) > 1);
        }

        return $plans;
    }

    /**
     * @param  list<Segment>  $segments
     *
     * @throws CannotPlan where next to nothing but silence would be made
     */
    public static function requireSound(string $path, Track $track, array $segments, int $rate): void
    {
        $silent = Segment::silent($segments);
        if ($silent > max(self::MOST_SILENCE * $rate, self::MUCH_MORE * (Segment::total($segments) - $silent))) {
            throw CannotPlan::silence($path, $track->number, $silent / $rate);
        }
    }

    /** @param  list<Segment>  $whole  what is presented of the track */
    private static function shaped(Reading $source, Wish $wish, CutFinder $cuts, Track $track, AudioFormat $from, Shape $shape, array $whole, int $moment, ?int $lasts, bool $several): Plan
    {
        $path = $source->path;
        $layout = $shape->routing->layout ?? $wish->layout ?? $from->layout;
        $layout = $layout->name() === $from->layout->name() ? $from->layout : $layout;
        EncoderChoice::requireBits($wish->format, $wish->bits);
        $shape->mix($from->layout, $layout);
        // What an encoder can do does not bind what is only copied.
        $stays = $from->pcm === null && $wish->format->carries($from) && in_array($wish->rate, [null, $from->rate], true) && in_array($wish->bits, [null, $from->bits()], true) && $layout->name() === $from->layout->name();
        $audio = $stays ? $from : self::encoded($path, $wish, $from, $layout);
        $unordered = $shape;
        $shape = $shape->inOrderOf($audio->layout, $from->layout);
        $setting = EncoderChoice::setting($wish->format, $wish->setting, $audio, $track, $from);
        $segments = $shape->cut($whole);
        $presented = Segment::total($segments);
        $shape = self::keptCut($source, $cuts, $track, $from, $audio, $wish, $setting, $shape, $segments);
        $keptSamples = match (true) {
            $shape->kept !== null => $shape->kept->samples,
            $shape->changesSamples() || $shape->pieces !== [] && $from->pcm === null => null,
            default => self::keptSamples($track, $segments, $from, $audio, $wish, $setting),
        };
        $kept = $keptSamples !== null;
        if (! $kept) {
            self::requireRemaking($from, $wish);
            if ($stays) {
                $audio = self::encoded($path, $wish, $from, $layout);
                $shape = $unordered->inOrderOf($audio->layout, $from->layout);
                $setting = EncoderChoice::setting($wish->format, $wish->setting, $audio, $track, $from);
            }
            $audio = $audio->withBitDepth(8 * intdiv($audio->bitDepth + 7, 8));
        } elseif ($audio->codec !== Codec::Pcm) {
            $audio = $from;
        }
        $samples = $keptSamples ?? $wish->format->presented($audio, Time::rescale($presented, $from->rate, $audio->rate));
        $dither = ! $kept && self::narrows($from, $audio, $shape);
        $bytes = match (true) {
            $kept && $audio->codec !== Codec::Pcm => (int) ($track->codedBytes * min(1.0, $samples / max(1, Segment::total($whole)))) + 2048,
            // What was compressed without loss becomes about as large in any other way of that.
            $from->codec->isLossless() && $from->codec !== Codec::Pcm && $wish->format->capabilities()->fidelity === Fidelity::Lossless && $audio->rate === $from->rate && $audio->channels() === $from->channels() && $audio->bits() === $from->bits() && $track->codedBytes > 0 => (int) ($track->codedBytes * min(1.0, $samples / max(1, Segment::total($whole)))) + 4096,
            default => $wish->format->predict($audio, $setting, $samples, $source->tags->withLabel($shape->label)->withChapters(ResultChapters::of($source->chapters, $from->rate, $moment, Segment::total($whole), $shape))),
        };

        return new Plan(
            $path, $source->bytes, $track->number, $moment,
            $kept ? Action::Kept : Action::Remade, $wish->format->name(), $audio, $kept ? RateControl::none() : $setting,
            $samples, $bytes, $source->tags, $wish->folder,
            self::name($wish->name, $source, $track, $audio, $shape, $several).'.'.$wish->format->extension(),
            $wish->existing, [...self::steps($from, $audio, $setting, $kept, $dither, $track, $moment, $whole, $segments, $samples, $shape), ...self::lost($source, $wish->format)], $dither, $source->stated, lasts: $lasts, shape: $shape, warnings: [...self::silence($whole, $from->rate), ...($kept ? [] : self::warnings($track, $from, $audio, $setting))],
        );
    }

    /** @throws Failure where the format has no such form */
    private static function encoded(string $path, Wish $wish, AudioFormat $from, Layout $layout): AudioFormat
    {
        $capabilities = $wish->format->capabilities();
        if ($layout->count() > $capabilities->mostChannels) {
            throw CannotPlan::tooManyChannels($path, $wish->format->label(), $capabilities->mostChannels, $layout->name());
        }

        return $wish->format->audio($from, EncoderChoice::rate($wish->format, $wish->rate, $from->rate), $layout, $wish->bits);
    }

    /**
     * Which packets are copied where one piece of coded sound is wanted and nothing of it changes.
     *
     * @param  list<Segment>  $segments  what is wanted of the track
     */
    private static function keptCut(Reading $source, CutFinder $cuts, Track $track, AudioFormat $from, AudioFormat $audio, Wish $wish, RateControl $setting, Shape $shape, array $segments): Shape
    {
        if (count($shape->pieces) !== 1 || $shape->changesSamples() || $from->pcm !== null || count($segments) !== 1 || $segments[0]->from === null) {
            return $shape;
        }
        if (! $wish->format->carries($from) || $from->codec !== $audio->codec || $from->rate !== $audio->rate || ! $from->layout->sounds($audio->layout) || ! self::isSmallEnough($track, $from, $wish, $setting)) {
            return $shape;
        }
        $cut = $cuts->around($source->path, $source->stated, $track->number, $from, $wish->format, $segments[0]->from, $segments[0]->from + $segments[0]->length);

        // Encoding anew is only more exact where the file can say what not to present.
        $length = $segments[0]->length;
        $remakes = $wish->shaping->exact && $cut !== null && ! $cut->isExact() && $wish->format->presented($audio, $length) === $length;

        return $cut === null || $remakes ? $shape : $shape->with($cut);
    }

    private static function name(NamePattern $pattern, Reading $source, Track $track, AudioFormat $audio, Shape $shape, bool $several): string
    {
        $label = $shape->label;
        $piece = $shape->number > 0 ? sprintf('%02d', $shape->number) : '';
        $name = $pattern->fill(self::names($source, $track->number, $audio) + ['label' => $label, 'piece' => $piece]);
        $more = array_filter([$pattern->has('piece') ? '' : $piece, $pattern->has('label') || ! $several ? '' : $label], fn (string $part): bool => $part !== '');

        return $more === [] ? $name : LegalName::from($name.' '.implode(' ', $more));
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
     * @param  list<Segment>  $segments
     * @return list<string>
     */
    public static function silence(array $segments, int $rate): array
    {
        $silent = Segment::silent($segments);

        return $silent <= self::LONG_SILENCE * $rate ? [] : [sprintf('%s of it are silence that is filled in, because the file’s times leave them open.', TimePosition::write($silent, $rate))];
    }

    /** @return list<string> what somebody should know before it is encoded */
    public static function warnings(Track $track, AudioFormat $from, AudioFormat $audio, RateControl $setting): array
    {
        $own = EncoderChoice::kbps($track);
        $warnings = [];
        if (! $from->codec->isLossless() && ! $audio->codec->isLossless() && $own > 0 && $setting->kbps > $own * EncoderChoice::SLACK) {
            $warnings[] = sprintf('%d kbit/s are made of %.0f kbit/s: the file gets larger, the sound no better. Leave the bit rate to the source, or choose a smaller one.', $setting->kbps, $own);
        }

        return $warnings;
    }

    /** @return list<string> what the kind of file has no place for */
    private static function lost(Reading $source, OutputFormat $format): array
    {
        return $source->chapters === [] || $format->capabilities()->holdsChapters ? [] : [sprintf('without chapters: %s has no place for them', $format->label())];
    }

    /** @return list<int> samples at which chapters begin */
    private static function chapters(Reading $source, int $rate, int $moment): array
    {
        return array_map(fn (Chapter $chapter): int => max(0, (int) round($chapter->starts * $rate) - $moment), $source->chapters);
    }

    /** @throws Failure where the sound cannot be decoded or the format cannot be encoded */
    private static function requireRemaking(AudioFormat $from, Wish $wish): void
    {
        if (! Codecs::canDecode($from)) {
            throw CodecNotDecodable::of($from);
        }
        if (! $wish->format->capabilities()->makes) {
            throw CannotPlan::onlyKept($wish->format->label(), $from->label());
        }
    }

    /**
     * How many samples the result presents where the packets can be kept as they are; null where they must be remade.
     *
     * @param  list<Segment>  $segments  what is presented of the track
     */
    private static function keptSamples(Track $track, array $segments, AudioFormat $from, AudioFormat $audio, Wish $wish, RateControl $setting): ?int
    {
        if (! $wish->format->carries($from) || $from->codec !== $audio->codec || $from->rate !== $audio->rate || ! $from->layout->sounds($audio->layout)) {
            return null;
        }
        $length = Segment::total($segments);
        if ($from->pcm !== null) {
            return $audio->pcm !== null && $from->pcm->equals($audio->pcm) && $from->layout->placesOf($audio->layout) === array_keys($audio->layout->channels) && array_filter($segments, fn (Segment $segment): bool => $segment->from === null) === [] ? $length : null;
        }
        $narrower = $from->codec->isLossless() && $audio->bitDepth !== $from->bitDepth;
        $small = self::isSmallEnough($track, $from, $wish, $setting);
        if (count($segments) !== 1 || $segments[0]->from === null || $narrower || ! $small) {
            return null;
        }

        $kept = $wish->format->presentedKept($audio, $track->timeline->coded, $segments[0]->from, $length);

        return $wish->length === Length::Sound || $kept === $length ? $kept : null;
    }

    /** A lossy source is never made larger and called better: it stays as it is where it is small enough. */
    private static function isSmallEnough(Track $track, AudioFormat $from, Wish $wish, RateControl $setting): bool
    {
        $asked = $setting->quality !== null ? 0 : $setting->kbps;

        return $from->codec->isLossless() || $wish->setting->isNone() || EncoderChoice::kbps($track) <= $asked * EncoderChoice::SLACK;
    }

    /** Whether bits are lost that dither makes up for: whenever the result has fewer than 25 and is not just the source's own samples. */
    public static function narrows(AudioFormat $from, AudioFormat $audio, Shape $shape): bool
    {
        if (! $audio->codec->isLossless() || $audio->pcm?->kind === SampleKind::Float || $audio->bits() > 24) {
            return false;
        }
        $whole = $from->codec->isLossless() && ! in_array($from->pcm?->kind, [SampleKind::Float, SampleKind::ALaw, SampleKind::MuLaw], true);
        $untouched = $from->rate === $audio->rate && ! $shape->changesValues() && ($shape->routing !== null || $from->layout->sounds($audio->layout) || $from->layout->placesWithin($audio->layout) !== null);

        return ! ($untouched && $whole && $from->bits() <= $audio->bits());
    }

    /** @return array<string, string> */
    public static function names(Reading $source, int $track, AudioFormat $audio): array
    {
        $tags = $source->tags;

        return [
            'stem' => pathinfo($source->path, PATHINFO_FILENAME),
            'track' => (string) $track,
            'number' => (string) $track,
            'title' => $tags->get(TagField::Title) ?? '',
            'artist' => $tags->get(TagField::Artist) ?? '',
            'layout' => $audio->layout->name(),
            'rate' => (string) $audio->rate,
        ];
    }

    /**
     * @param  list<Segment>  $whole  what is presented of the track
     * @param  list<Segment>  $segments  what is wanted of that
     * @return list<string>
     */
    private static function steps(AudioFormat $from, AudioFormat $audio, RateControl $setting, bool $kept, bool $dither, Track $track, int $moment, array $whole, array $segments, int $samples, Shape $shape): array
    {
        if ($shape->kept !== null) {
            return [...self::pieces($shape, $from->rate), 'the '.$from->label().' sound is copied untouched', $shape->kept->isExact() ? 'exact to the sample' : sprintf('on frame borders: it begins %.1f ms early and ends %.1f ms late', 1000 * $shape->kept->early / $from->rate, 1000 * $shape->kept->late / $from->rate)];
        }
        if ($kept && $shape->pieces !== []) {
            return [...self::pieces($shape, $from->rate), 'the '.$from->label().' sound is copied untouched'];
        }
        if ($kept) {
            $more = $samples - Segment::total($segments);

            return ['the '.$from->label().' sound is copied untouched', ...self::lengthened($track, $whole, $moment, $from->rate), ...($more > 0 ? [sprintf('whole frames: %s samples more than the source presents', number_format($more))] : [])];
        }
        $steps = ['decode '.$from->label().($shape->joined === [] ? '' : sprintf(' of %d tracks together', 1 + count($shape->joined)))];
        $shift = $track->timeline->startOffset - $moment;
        if ($shift > 0) {
            $steps[] = sprintf('%.3f s of silence first, so that it starts with the picture', $shift / $from->rate);
        } elseif ($shift < 0) {
            $steps[] = sprintf('leave out %.3f s before the picture starts', -$shift / $from->rate);
        }
        array_push($steps, ...self::lengthened($track, $whole, $moment, $from->rate), ...self::pieces($shape, $from->rate));
        if ($shape->routing !== null && ! $shape->routing->isStraight()) {
            $steps[] = self::routed($shape->routing, $from->layout);
        } elseif ($from->layout->count() !== $audio->layout->count()) {
            $steps[] = $from->layout->name().' to '.$audio->layout->name();
        }
        if ($shape->fadeIn > 0 || $shape->fadeOut > 0) {
            $steps[] = implode(', ', array_filter([$shape->fadeIn > 0 ? sprintf('fade in over %.2f s', $shape->fadeIn / $from->rate) : '', $shape->fadeOut > 0 ? sprintf('fade out over %.2f s', $shape->fadeOut / $from->rate) : '']));
        }
        if ($shape->level !== null) {
            $steps[] = $shape->level->says();
        }
        if ($from->rate !== $audio->rate) {
            $steps[] = self::kilohertz($from->rate).' to '.self::kilohertz($audio->rate).($audio->rate < $from->rate ? ', nothing above '.self::kilohertz(intdiv($audio->rate, 2)).' is left' : '');
        }
        if ($dither) {
            $steps[] = sprintf('dither to %d bits', $audio->bits()).($from->bits() > $audio->bits() ? sprintf(' of %d', $from->bits()) : '');
        }
        if (! $from->codec->isLossless() && ! $audio->codec->isLossless()) {
            $steps[] = 'compressed with loss a second time';
        }
        $steps[] = match (true) {
            $audio->codec->isLossless() => 'write '.$audio->label(),
            $setting->isNone() => 'encode '.$audio->codec->label(),
            $setting->quality !== null => sprintf('encode %s, variable rate %d', $audio->codec->label(), $setting->quality),
            default => sprintf('encode %s at %d kbit/s', $audio->codec->label(), $setting->kbps),
        };

        $more = $samples - Time::rescale(Segment::total($segments), $from->rate, $audio->rate);
        if ($more > 0) {
            $steps[] = sprintf('whole frames: %s samples more than the source presents', number_format($more));
        }

        return $steps;
    }

    /** @return list<string> */
    private static function pieces(Shape $shape, int $rate): array
    {
        return match (count($shape->pieces)) {
            0 => [],
            1 => [sprintf('from %s to %s', TimePosition::write($shape->pieces[0]->from, $rate), TimePosition::write($shape->pieces[0]->until, $rate))],
            default => [sprintf('%d pieces, %s together', count($shape->pieces), TimePosition::write(array_sum(array_map(fn (Piece $piece): int => $piece->length(), $shape->pieces)), $rate))],
        };
    }

    /** In words: `L to mono`. */
    public static function routed(Routing $routing, Layout $from): string
    {
        try {
            if ($from->count() !== $routing->layout->count() && Mix::between($from, $routing->layout)->gains === $routing->mix->gains) {
                return $from->name().' to '.$routing->layout->name();
            }
        } catch (NoStandardMix) {
            // Then it is told channel by channel.
        }
        $letters = fn (int $input): string => $from->names()[$input] ?? (string) ($input + 1);
        $rows = array_map(function (array $row) use ($letters): string {
            $heard = array_filter($row, fn (float $gain): bool => $gain !== 0.0);

            return $heard === [] ? 'silence' : implode('+', array_map(fn (int $input, float $gain): string => ($gain < 0 ? '−' : '').$letters($input), array_keys($heard), $heard));
        }, $routing->mix->gains);

        return implode(', ', array_unique($rows)).' to '.(count($rows) > 1 && count(array_unique($rows)) === 1 ? 'both sides' : $routing->layout->name());
    }

    /**
     * What making it as long as the picture does to it.
     *
     * @param  list<Segment>  $segments  what is presented of the track
     * @return list<string>
     */
    private static function lengthened(Track $track, array $segments, int $moment, int $rate): array
    {
        $more = Segment::total($segments) - Segment::total($track->timeline->from($moment));

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

    private static function kilohertz(int $rate): string
    {
        return rtrim(rtrim(number_format($rate / 1000, 3, '.', ''), '0'), '.').' kHz';
    }
}
