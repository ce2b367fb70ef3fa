<?php

declare(strict_types=1);

namespace Octavox\Core\Reading;

use Octavox\Core\Codec\Codecs;
use Octavox\Core\Container\Raw\HeaderlessFormat;
use Octavox\Core\Failure;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Diagnostic;
use Octavox\Core\Media\Severity;
use Octavox\Core\Media\Track;

/** Reads a source's facts without reading its sound or pictures, and says what stands in the way. */
final class Reader
{
    /** Seconds by which sound may be late before anybody notices: ITU-R BT.1359-1, figure 2. */
    private const NOTICED = 0.045;

    /** Seconds that sound may be shorter than the picture without a word. */
    private const MUCH_SHORTER = 0.5;

    /** What a file of each container is usually called. */
    private const EXTENSIONS = [
        'mp4' => ['mp4', 'm4v', 'm4a', 'mov', 'f4v', 'm4b', 'm4r'],
        'm4a' => ['m4a', 'm4b', 'm4r', 'mp4', 'aac'],
        'mov' => ['mov', 'qt', 'mp4', 'm4a'],
        '3gp' => ['3gp', '3g2', '3gpp', 'mp4'],
        'wav' => ['wav', 'wave', 'bwf', 'rf64'],
        'w64' => ['w64'],
        'aiff' => ['aif', 'aiff', 'aifc'],
        'caf' => ['caf'],
        'au' => ['au', 'snd'],
        'flac' => ['flac', 'fla'],
        'ogg' => ['ogg', 'oga', 'ogv', 'ogx', 'opus', 'spx'],
        'wavpack' => ['wv'],
        'adts' => ['aac', 'adts', 'adt'],
        'latm' => ['aac', 'latm', 'loas'],
        'ac3' => ['ac3'],
        'eac3' => ['eac3', 'ec3', 'ac3'],
        'dts' => ['dts'],
        'amr' => ['amr', 'awb', '3ga'],
        'mkv' => ['mkv', 'mka', 'mks', 'mk3d'],
        'webm' => ['webm', 'weba'],
        'avi' => ['avi', 'divx'],
        'mpeg-ps' => ['mpg', 'mpeg', 'vob', 'm2p', 'ps', 'dat'],
        'mpeg-ts' => ['ts', 'm2ts', 'mts', 'm2t', 'trp', 'tp'],
        'flv' => ['flv', 'f4v'],
        'asf' => ['asf', 'wma', 'wmv'],
        'mp3' => ['mp3', 'mpga'],
        'mp2' => ['mp2', 'mpa', 'mp3', 'm2a'],
        'mp1' => ['mp1', 'mpa'],
    ];

    /** Whether recordings are usually called so. */
    public static function isUsualExtension(string $extension): bool
    {
        return in_array(strtolower($extension), array_merge(...array_values(self::EXTENSIONS)), true);
    }

    /** @throws Failure */
    public static function read(string $path, ?HeaderlessFormat $stated = null): Reading
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
        );
    }

    /** @return list<Finding> */
    private static function findings(string $path, OpenedSource $source): array
    {
        $findings = array_map(fn (Diagnostic $diagnostic): Finding => new Finding($diagnostic->code, $diagnostic->weight, $diagnostic->says,
            $diagnostic->remedy), $source->media->diagnostics());
        $sound = $source->sound();
        if ($sound === []) {
            $findings[] = new Finding('no-sound', Severity::Stop, 'This video has no sound track, so there is no sound to take from it.',
                'Check the camera’s settings, or bring in the recording that was made beside it; the picture can still go into another '
                    .'container.');
        }
        foreach ($sound as $track) {
            if ($track->sound !== null && str_contains($track->sound->variant, 'protected')) {
                $findings[] = new Finding('protected', Severity::Stop,
                    sprintf('The sound of track %d is protected against copying, so it cannot be used here.', $track->number),
                    'Ask whoever sold it for a copy without protection.');
            } elseif ($track->sound !== null && Codecs::lacksSetUp($track->sound)) {
                $findings[] = new Finding('set-up-missing', Severity::Stop,
                    sprintf('The sound of track %d is %s, but the bytes that set its decoder up are missing in this file or damaged.',
                        $track->number, $track->sound->label()),
                    'Copy the file again from where it came from, or export it anew from the program that made it.');
            } elseif ($track->sound !== null && ! Codecs::canDecode($track->sound)) {
                $findings[] = new Finding('codec-not-decodable', Severity::Stop,
                    sprintf('The sound of track %d is %s, which Octavox cannot decode yet.', $track->number, $track->sound->label()),
                    'It can be copied untouched where a container carries it, such as Matroska sound; or export it from the program '
                        .'that made it in another form, such as AAC or PCM.');
            } elseif ($track->timeline->samples() === 0) {
                $findings[] = new Finding('no-samples', Severity::Stop,
                    sprintf('Track %d is announced but holds no sound at all.', $track->number),
                    'Copy the file again from where it came from.');
            }
        }
        $findings = [...$findings, ...self::inStep($source), ...self::coarse($sound)];
        if (count($sound) > 1) {
            $findings[] = new Finding('several-sound-tracks', Severity::Note,
                sprintf('There are %d sound tracks; the first is taken unless you choose another, or all.', count($sound)),
                'Choose on the order sheet.');
        }
        $container = $source->media->container();
        $extension = strtolower(pathinfo($path, PATHINFO_EXTENSION));
        if ($extension !== '' && isset(self::EXTENSIONS[$container]) && ! in_array($extension, self::EXTENSIONS[$container], true)) {
            $findings[] = new Finding('extension-differs', Severity::Note,
                sprintf('The name ends in .%s, but the content is %s; some programs refuse it for that alone.', $extension,
                    strtoupper($container)), 'Nothing needs to be done here: Octavox goes by the content.');
        }

        return $findings;
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
                $findings[] = new Finding('sound-late', Severity::Note,
                    sprintf('The sound of track %d begins %.3f s after the picture.', $track->number, $late),
                    'Nothing needs to be done: what is made here begins with the picture, with silence first.');
            }
            if ($picture->seconds > 0 && $short > self::MUCH_SHORTER && $track->timeline->samples() > 0) {
                $findings[] = new Finding('sound-short', Severity::Note,
                    sprintf('The sound of track %d ends %.1f s before the picture does.', $track->number, $short),
                    'Check whether the recording broke off; what is there can be used.');
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
            if ($audio === null || $audio->codec->isLossless() || $track->seconds() < 1) {
                continue;
            }
            $each = $track->codedBytes / $track->seconds() / 125 / max(1, $audio->channels());
            $least = match ($audio->codec) {
                Codec::Mp3 => 40,
                Codec::Mp2 => 56,
                Codec::Aac, Codec::Vorbis => 28,
                Codec::Opus => 16,
                default => 0,
            };
            if ($each > 0 && $each < $least) {
                $findings[] = new Finding('low-rate', Severity::Note,
                    sprintf('The sound of track %d takes %.0f kbit/s; where it is not silent, that is so little that it can be heard.',
                        $track->number, $each * $audio->channels()),
                    'Look for the original; a larger format made of this one sounds no better.');
            }
        }

        return $findings;
    }
}
