<?php

declare(strict_types=1);

namespace Octavox\Core\Reading;

use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\NamedModule;
use Octavox\Core\Container\Containers;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Container\Video\VideoOutputFormat;
use Octavox\Core\Container\Video\VideoOutputs;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Sound\Layout;

/** What `docs/formats.md` says, out of the registries. */
final class FormatTable
{
    /** How each format that is read is called; a test asks that none is missing. */
    private const READ = [
        'IsoMedia' => ['MP4, M4A, 3GP, QuickTime movies', 'whole and in fragments, edits, chapters, tags, cover'],
        'Matroska' => ['Matroska, WebM', 'every lacing, stripped and deflated frames, delay, discarded ends, chapters, tags, cover'],
        'TransportStream' => ['MPEG transport streams',
            '188, 192 and 204 bytes a packet; AAC in ADTS and LATM, MPEG audio, AC-3, E-AC-3, DTS, LPCM of disc camcorders'],
        'ProgramStream' => ['MPEG program streams', 'MPEG audio, AC-3, DTS and LPCM of video discs'],
        'Avi' => ['AVI', 'with OpenDML; without an index the chunks themselves are walked'],
        'Flv' => ['FLV', 'AAC, MP3, PCM, G.711'],
        'Asf' => ['ASF', 'MP3, AC-3, PCM; Windows Media is named and kept in Matroska'],
        'Wave' => ['WAV, RF64, BW64',
            'every width, floating point, A-law, µ-law, ADPCM, GSM, MP3, AC-3 and DTS in it; marks, notes of recorders; unfinished '
                .'recordings'],
        'W64' => ['Wave64', 'as WAV'],
        'Aiff' => ['AIFF, AIFC', 'every width and order, floating point, A-law, µ-law, IMA ADPCM, GSM'],
        'CoreAudio' => ['CAF', 'PCM, ALAC, AAC, IMA ADPCM, A-law, µ-law'],
        'Au' => ['AU', 'PCM, floating point, A-law, µ-law'],
        'Flac' => ['FLAC', 'with comments, chapters and cover'],
        'Ogg' => ['Ogg', 'Vorbis, Opus, FLAC, Speex, with comments, chapters and cover; chained files as one recording'],
        'WavPack' => ['WavPack', 'with APE tags and cover'],
        'Amr' => ['AMR', 'narrow and wide band'],
        'Ac3' => ['AC-3, E-AC-3', 'bare frames'],
        'Dts' => ['DTS', 'bare core frames'],
        'Ape' => ["Monkey's Audio", 'named, with its facts and tags; not decoded'],
        'Tta' => ['True Audio', 'named, with its facts and tags; not decoded'],
        'Musepack' => ['Musepack', 'named, with its facts and tags; not decoded'],
        'Dsd' => ['DSF, DSDIFF', 'named, with its facts; not decoded'],
        'MpegVideo' => ['MPEG-1, MPEG-2 and H.264 pictures alone', 'named, so that nobody looks for sound in them'],
        'Cue' => ['CUE sheets',
            'with disc images and recordings beside them: a chapter for each track, what is hidden before the first, titles'],
        'Latm' => ['AAC in LOAS/LATM', 'bare frames'],
        'Adts' => ['AAC in ADTS', 'bare frames, with or without ID3'],
        'MpegAudio' => ['MP3, MP2, MP1',
            'ID3 with chapters, APE tags, info headers with delay and padding, free format, junk between frames'],
    ];

    public static function markdown(): string
    {
        $lines = ['# Formats', '', 'Written from the registries by `php bin/formats.php`; a test keeps it true.', '', '## In', '',
            'Recognised by content, never by name.', '', '| format | what of it |', '| --- | --- |'];
        foreach (Containers::all() as $format) {
            $folder = explode('\\', $format::class);
            [$name, $what] = self::READ[$folder[count($folder) - 2]] ?? [$format::class, ''];
            $lines[] = "| $name | $what |";
        }
        $lines = [...$lines, '',
            'Raw PCM, A-law, µ-law, GSM and 4-bit telephone ADPCM without a header are read when it is said what they hold '
                .'(`--headerless`).', '', '## Codecs', '', '| codec | decoded | encoded |', '| --- | --- | --- |'];
        foreach (Codec::cases() as $codec) {
            $module = CodecModules::of($codec);
            if ($module->isSound()) {
                $lines[] = sprintf('| %s | %s | %s |', $module->label(), match (true) {
                    $module->isDecoded() => 'yes',
                    $module instanceof NamedModule && ! $module->isKept => 'no, named',
                    default => 'no, named and kept',
                }, self::encodes($codec) ? 'yes' : 'no');
            }
        }
        $lines = [...$lines, '', '## Out: sound', '', '| `--format` | file | samples | widths | rates | channels | kbit/s | suits |',
            '| --- | --- | --- | --- | --- | --- | --- | --- |'];
        foreach (Outputs::all() as $format) {
            $lines[] = self::output($format);
        }
        $lines = [...$lines, '',
            'Chapters and marks go along into WAV, AIFF, FLAC, M4A, MP3, MP2, ADTS, Ogg and Matroska; those of a piece begin where they '
                .'are heard in it.', '', '## Out: video, the picture kept bit for bit', '', '| `--format` | pictures | sound that is '
                    .'kept | other sound becomes | suits |', '| --- | --- | --- | --- | --- |'];
        foreach (VideoOutputs::all() as $video) {
            $lines[] = self::video($video);
        }

        return implode("\n", $lines)."\n";
    }

    private static function output(OutputFormat $format): string
    {
        $capabilities = $format->capabilities();

        return sprintf('| `%s` | %s (.%s) | %s | %s | %s | %s | %s | %s |',
            $format->name(), $format->label(), $format->extension(), $capabilities->makes ? $capabilities->fidelity->value : 'only kept',
            $capabilities->bitDepths === [] ? '–' : implode(', ', $capabilities->bitDepths),
            $capabilities->rates === [] ? 'every'
                : implode(', ', array_map(fn (int $rate): string => rtrim(rtrim(number_format($rate / 1000, 3, '.', ''), '0'), '.'),
                    $capabilities->rates)).' kHz',
            $capabilities->mostChannels, $capabilities->kbps === [] ? '–'
                : $capabilities->kbps[0].'–'.$capabilities->kbps[count($capabilities->kbps) - 1].($capabilities->variable
                ? ', variable' : ''),
            $capabilities->suits,
        );
    }

    private static function video(VideoOutputFormat $video): string
    {
        $pictures = array_filter(Codec::cases(), fn (Codec $codec): bool => ! CodecModules::of($codec)->isSound() && $video
            ->carriesPicture($codec));
        $sounds = array_filter(Codec::cases(), fn (Codec $codec): bool => CodecModules::of($codec)->isSound()
            && $video->carriesSound(self::example($codec)));
        $names = fn (array $codecs): string => implode(', ', array_map(fn (Codec $codec): string => CodecModules::of($codec)->label(),
            $codecs));

        return sprintf('| `%s` | %s | %s | %s | %s |', $video->name(), $names($pictures), $names($sounds),
            $video->encodes()->label() === 'WAV' ? 'PCM' : $video->encodes()->label(), $video->suits());
    }

    private static function example(Codec $codec): AudioFormat
    {
        return $codec === Codec::Pcm ? AudioFormat::pcm(SampleFormat::signed(16), 48000, Layout::stereo())
            : new AudioFormat($codec, 48000, Layout::stereo(), null, 'x');
    }

    private static function encodes(Codec $codec): bool
    {
        foreach (Outputs::all() as $format) {
            if ($format->capabilities()->makes && $format->audio(self::example($codec), 48000, Layout::stereo(), null)->codec === $codec) {
                return true;
            }
        }

        return false;
    }
}
