<?php

declare(strict_types=1);

namespace Octavox\Cli;

use Octavox\Core\Codec\OutsideDecoders;
use Octavox\Core\Failure;
use Octavox\Core\InternalFault;
use Octavox\Core\Order\SpecInvalid;

/** Finds the command that was asked for, runs it, and gives its exit status: 0 well, 1 failed, 2 wrongly written. */
final class Application
{
    private const HELP = <<<'TEXT'
        Octavox takes the sound out of video and recordings, in the format the next program accepts.
        ./octavox COMMAND --help, or help COMMAND, prints what is said here of one command.

          ./octavox demo [--port N]      set up what is missing, load the demo data, start, print the address
          ./octavox serve [--port N]     the same without demo data
          ./octavox test [--fast | PART | FILE]…
                                         every test there is, or some: style analysis speed core application browser
          ./octavox bench [PART]…        the benchmarks, as ratios measured side by side: making pairs kept reading hearing
                                         parallel planning pages scale quick

          ./octavox read PATH… [--json] [--listen] [--for DESTINATION] [--headerless KIND:RATE:CHANNELS] [--disc-title N]
              the facts of files and folders, and what stands in their way; --listen measures levels and loudness as well,
              and finds two microphones on left and right, silent or flipped sides, clipping
              --for says whether a destination accepts each, what stops it, and the least change that helps
          ./octavox destinations [--json]
              where results can go, by name; the path of a JSON file (core/schema/destination.json) is taken as well
          ./octavox completion bash|zsh   what a shell has to know to complete words: source <(./octavox completion bash)
          ./octavox recipes [--json]
              ways of making with a name; the path of a JSON file (core/schema/recipe.json) is taken as well
          ./octavox make PATH… (--into DIR | --beside) (--format F | --for DESTINATION | --recipe R) [--json] [--plan] [--headerless KIND:RATE:CHANNELS]
              [--disc-title N] [--disc-sheet NAME.cue] [--spec FILE] [--right copy|leave]
              [--track N|LANGUAGE|all|joined] [--layout MAP] [--labels A,B…] [--rate HZ] [--bits 8|16|24|32]
              [--from T] [--until T] [--pieces T-T,T-T… [--each]] [--exact] [--fade-in T] [--fade-out T]
              [--level TARGET [--together]]
              [--kbps N [--held constant|average] | --variable 0…9] [--stereo joint|separate] [--checksums]
              [--compression N] [--dither on|off] [--de-emphasis]
              [--length sound|picture|T] [--name PATTERN] [--exists number|replace|skip]
              [--name-signs keep|remove|spell] [--tag-signs keep|remove|spell]
              [--cover FILE|none] [--tags FILE] [--broadcast plain|FIELD=TEXT;…]
              make results; --plan, or --dry-run, only says what would be made; a playlist (M3U, PLS, XSPF) stands for what it names
              --picture keep --format mov|mp4|mkv|webm [--sound F] copies the picture untouched, and sound that the
              container carries; --sound encodes all of it in that format
              --spec takes what is asked from a JSON file (core/schema/output-spec.json tells its fields); options lie over it
              --recipe makes by a recipe; options lie over it
              --for does to each source the least that makes a destination accept it: nothing but a copy, another container,
              or its sound remade
              --right leave makes nothing of a source that is already what is asked for; otherwise it is copied
              formats: wav float aiff caf au flac alac wavpack mp3 aac m4r adts opus vorbis mp2 ac3 eac3 dts mka
              alaw ulaw ima msadpcm gsm vox raw; ac3, eac3, dts and mka are only kept, never encoded
              tracks by number or language, several with commas between; 2+3+4 joins their channels into one sound
              layouts: asis split mono stereo left right left-both right-both swap 5.1 7.1, or channel by channel:
              1/2 two mono files, 2,1 swapped, 1@-6+2@-6 mono, 1,-2 the right side flipped
              times: 62.5, 1:02.5, 48000# samples, 250f picture frames, -3 before the end, end; --each makes a file of each piece
              a piece of sound that is kept begins and ends on borders of frames where the file cannot say more exactly, and the
              plan says by how much; --exact rather encodes it anew
              --de-emphasis takes the raised treble of disc tracks with pre-emphasis down again
              pieces also: chapters, chapters:without-gaps (of audio discs), or silences:-45:0.7 to leave out what is below -45 dBFS for 0.7 s
              --held says how the bit rate is held: constant in every frame, or average over the whole (MP3, Opus, Vorbis);
              --stereo joint or separate (MP3, MP2, Vorbis); --checksums puts sums into frames (MP3, MP2);
              --compression is the level of the codec, FLAC 0 to 8, WavPack 0 to 3; --dither off rounds plainly
              --tags takes tags from a file: a JSON object of fields for all, a list of such with path for each, or CSV whose
              first line names the fields, path among them; --beside puts each result beside its source
              --cover gives results a JPEG or PNG picture; --broadcast writes the fields of Broadcast WAV, as
              --broadcast 'originator=Wrenfield canal; date=2026-05-09'
              --length cuts a longer sound there and puts silence after a shorter one, as --length 0:30
              levels: gain:+3 peak:-1 peak:90% rms:-20 lufs:-16, with a ceiling for the true peak like lufs:-16:-2;
              --together gives all one gain, so that their balance stays
              a file without a header is told like pcm16:48000:2 or vox:8000
              a video disc (an image, or a folder with VIDEO_TS) stands for all of its titles; --disc-title N takes one of them;
              --disc-sheet writes the sheet by which other programs write what was made for audio-disc on a disc
              names are patterns: text, folders and fields in braces, as {artist|"Unknown"}/{album}/[{track:2} - ]{title|stem};
              {a|b} takes the first that has a value, what stands in brackets is left out where its field has none; fields:
              stem title artist album album_artist track disc year genre recorded today folder tree label layout codec rate
              sound_track number piece, and any tag as tag:NAME
              --name-signs and --tag-signs keep, remove or spell out emoji and control characters
          ./octavox watch DIR… (what make takes) [--still SECONDS] [--once]
              makes results of what arrives in folders and below, each file once and only when it has not grown for --still
              seconds, 5 where nothing is said; renamed files are known again, also after a restart; Ctrl-C ends it
              --once ends once nothing more is coming; --dry-run says what would be made and forgets it; with --json these
              print one document, watching on prints a document a line for each round
          ./octavox orders [N] [--json] [--hold | --go-on | --first | --last | --cancel | --retry]
              the orders of this machine and how far they are, or one of them; N may be all with --hold and --go-on
          ./octavox compare A B [--json]
              is it the same sound? length, offset, level of the difference, per channel

        TEXT;

    /** @param  list<string>  $words */
    public static function run(array $words): int
    {
        OutsideDecoders::by(Home::path('decoders.json'));
        $json = in_array('--json', $words, true);
        $output = new Output($json);
        try {
            return self::command((string) array_shift($words), array_values($words), $output)->run();
        } catch (Usage|SpecInvalid $wrong) {
            $output->error($wrong);
            @fwrite(STDERR, $wrong->getMessage()."\n");

            return 2;
        } catch (Failure $failure) {
            $output->error($failure);
            @fwrite(STDERR, ($failure->path === null ? '' : $failure->path.': ').$failure->getMessage()."\n");

            return 1;
        } catch (\Throwable $bug) {
            $fault = InternalFault::of($bug);
            $output->error($fault);
            @fwrite(STDERR, $fault->getMessage().' ('.$bug->getMessage().")\n");

            return 1;
        }
    }

    public static function help(): string
    {
        return self::HELP;
    }

    /**
     * @param  list<string>  $words
     *
     * @throws Usage
     */
    private static function command(string $name, array $words, Output $output): Command
    {
        return match ($name) {
            'read' => new ReadCommand(Arguments::parse($words, ['headerless', 'for', 'disc-title'], ['json', 'listen']), $output),
            'watch' => new WatchCommand(Arguments::parse($words, [...MakeCommand::OPTIONS, 'still'], [...MakeCommand::FLAGS, 'once']),
                $output),
            'make' => new MakeCommand(Arguments::parse($words, MakeCommand::OPTIONS, MakeCommand::FLAGS), $output),
            'compare' => new CompareCommand(Arguments::parse($words, [], ['json']), $output),
            'completion' => new CompletionCommand(Arguments::parse($words, [], []), $output),
            'destinations', 'recipes' => new ListCommand($name, Arguments::parse($words, [], ['json']), $output),
            default => throw Usage::unknown($name === '' ? 'without a command' : $name),
        };
    }
}
