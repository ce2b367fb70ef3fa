<?php

declare(strict_types=1);

namespace Octavox\Core\Reading;

use Octavox\Core\Codec\Codecs;
use Octavox\Core\Container\Raw\RawForm;
use Octavox\Core\Container\Remark;
use Octavox\Core\Container\RemarkWeight;
use Octavox\Core\Failure;

/** Reads a source's facts without reading its sound or pictures, and says what stands in the way. */
final class Reader
{
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

    /** @throws Failure */
    public static function read(string $path, ?RawForm $stated = null): Reading
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
        );
    }

    /** @return list<Finding> */
    private static function findings(string $path, OpenedSource $source): array
    {
        $findings = array_map(fn (Remark $remark): Finding => new Finding($remark->code, $remark->weight, $remark->says, $remark->remedy), $source->media->remarks());
        $sound = $source->sound();
        if ($sound === []) {
            $findings[] = new Finding('no-sound', RemarkWeight::Stop, 'This video has no sound track, so there is no sound to take from it.', 'Check the camera’s settings, or bring in the recording that was made beside it.');
        }
        foreach ($sound as $track) {
            if ($track->sound !== null && ! Codecs::canDecode($track->sound)) {
                $findings[] = new Finding('codec-not-decodable', RemarkWeight::Stop, sprintf('The sound of track %d is %s, which Octavox cannot decode yet.', $track->number, $track->sound->label()), 'Export it from the program that made it in another form, such as AAC or PCM.');
            } elseif ($track->timeline->samples() === 0) {
                $findings[] = new Finding('no-samples', RemarkWeight::Stop, sprintf('Track %d is announced but holds no sound at all.', $track->number), 'Copy the file again from where it came from.');
            }
        }
        if (count($sound) > 1) {
            $findings[] = new Finding('several-sound-tracks', RemarkWeight::Note, sprintf('There are %d sound tracks; the first is taken unless you choose another.', count($sound)), 'Choose the track on the order sheet.');
        }
        $container = $source->media->container();
        $extension = strtolower(pathinfo($path, PATHINFO_EXTENSION));
        if ($extension !== '' && isset(self::EXTENSIONS[$container]) && ! in_array($extension, self::EXTENSIONS[$container], true)) {
            $findings[] = new Finding('extension-differs', RemarkWeight::Note, sprintf('The name ends in .%s, but the content is %s; some programs refuse it for that alone.', $extension, strtoupper($container)), 'Nothing needs to be done here: Octavox goes by the content.');
        }

        return $findings;
    }
}
