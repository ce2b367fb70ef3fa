<?php

declare(strict_types=1);

namespace Octavox\Core\Reading;

use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\Codecs;
use Octavox\Core\Container\IndexPlace;
use Octavox\Core\Container\StatedAs;
use Octavox\Core\Failure;
use Octavox\Core\Media\Findings;
use Octavox\Core\Media\Severity;
use Octavox\Core\Media\Track;
use Octavox\Core\Tag\Chapter;

/** Reads a source's facts without reading its sound or pictures, and says what stands in the way. */
final class Reader
{
    /** Seconds by which sound may be late before anybody notices: ITU-R BT.1359-1, figure 2. */
    private const NOTICED = 0.045;

    /** Seconds that sound may be shorter than the picture without a word. */
    private const MUCH_SHORTER = 0.5;

    /** @throws Failure */
    public static function read(string $path, ?StatedAs $stated = null): Reading
    {
        $source = Opener::open($path, $stated);
        $media = $source->media;

        return new Reading(
            $path,
            $media->container(),
            $media->source()->size(),
            $source->seconds(),
            $source->tracks,
            $media->tags(),
            self::findings($path, $source),
            $media->source()->bytesRead(),
            $stated,
            $media->chapters(),
            $media->tags()->cover->type ?? '',
            $media instanceof IndexPlace && ! $media->indexComesFirst(),
            strlen($media->tags()->cover->bytes ?? ''),
        );
    }

    /** @return list<Finding> */
    private static function findings(string $path, OpenedSource $source): array
    {
        $findings = array_map(Finding::noticed(...), $source->media->diagnostics());
        $sound = $source->sound();
        if ($sound === []) {
            $findings[] = new Finding(new Findings\NoSound, Severity::Stop);
        }
        foreach ($sound as $track) {
            if ($track->sound?->isProtected() === true) {
                $findings[] = new Finding(new Findings\CopyProtected(track: $track->number), Severity::Stop);
            } elseif ($track->sound !== null && Codecs::lacksSetUp($track->sound)) {
                $findings[] = new Finding(new Findings\SetUpMissing(track: $track->number, format: CodecModules::describe($track->sound)),
                    Severity::Stop);
            } elseif ($track->sound !== null && ! Codecs::canDecode($track->sound)) {
                $findings[] = new Finding(new Findings\CodecNotDecodable(track: $track->number, format: CodecModules::describe($track
                    ->sound)), Severity::Stop);
            } elseif ($track->timeline->samples() === 0) {
                $findings[] = new Finding(new Findings\NoSamples(track: $track->number), Severity::Stop);
            }
        }
        $emphasised = count(array_filter($source->media->chapters(), fn (Chapter $one): bool => $one->disc?->isEmphasised === true));
        if ($emphasised > 0) {
            $findings[] = (new Finding(new Findings\PreEmphasis(tracks: $emphasised), Severity::Note))->mendedBy(['de_emphasis' => '1']);
        }
        $findings = [...$findings, ...self::inStep($source), ...self::coarse($sound)];
        if (count($sound) > 1) {
            $findings[] = new Finding(new Findings\SeveralSoundTracks(count: count($sound)), Severity::Note);
        }
        $container = $source->media->container();
        $extension = strtolower(pathinfo($path, PATHINFO_EXTENSION));
        if ($extension !== '' && ! UsualExtensions::fit($extension, $container)) {
            $format = NamedFormat::name($container, $source);
            $findings[] = (new Finding(new Findings\ExtensionDiffers(extension: $extension, container: $container), Severity::Note))
                ->mendedBy($format === null ? [] : ['format' => $format]);
        }

        return [...$findings, ...NameFindings::find($path, $source->media->tags())];
    }

    /**
     * Sound that begins or ends at another time than the picture.
     *
     * @return list<Finding>
     */
    private static function inStep(OpenedSource $source): array
    {
        $picture = $source->picture()?->picture;
        $findings = [];
        if ($picture === null) {
            return [];
        }
        foreach ($source->sound() as $track) {
            $rate = max(1, $track->sound->rate ?? 1);
            $late = $track->timeline->startOffset / $rate - $picture->startOffset;
            $short = $picture->startOffset + $picture->seconds - ($track->timeline->startOffset + $track->timeline->samples()) / $rate;
            if ($late > self::NOTICED) {
                $findings[] = new Finding(new Findings\SoundLate(track: $track->number, seconds: round($late, 6)), Severity::Note);
            }
            if ($picture->seconds > 0 && $short > self::MUCH_SHORTER && $track->timeline->samples() > 0) {
                $findings[] = new Finding(new Findings\SoundShort(track: $track->number, seconds: round($short, 6)), Severity::Note);
            }
        }

        return $findings;
    }

    /**
     * Lossy sound that was made so small that it can be heard.
     *
     * @param  list<Track>  $sound
     * @return list<Finding>
     */
    private static function coarse(array $sound): array
    {
        $findings = [];
        foreach ($sound as $track) {
            $audio = $track->sound;
            if ($audio === null || CodecModules::of($audio->codec)->isLossless() || $track->seconds() < 1) {
                continue;
            }
            $each = $track->codedBytes / $track->seconds() / 125 / max(1, $audio->channels());
            $least = CodecModules::of($audio->codec)->coarseBelow();
            if ($each > 0 && $each < $least) {
                $findings[] = new Finding(new Findings\LowRate(track: $track->number, kbps: round($each * $audio->channels(), 3)),
                    Severity::Note);
            }
        }

        return $findings;
    }
}
