<?php

declare(strict_types=1);

namespace Octavox\Bench;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Codec\Codecs;
use Octavox\Core\Codec\EncoderRefused;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Container\Video\VideoOutputs;
use Octavox\Core\Failure;
use Octavox\Core\Make\Maker;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Order\IfExists;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Order\SoundSpec;
use Octavox\Core\Plan\Plan;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\BlockTooLarge;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Sound\Native\LibraryMissing;
use Octavox\Core\Testing\Planning;
use Octavox\Core\Testing\Spec;

/** What every part measures with: made-up sources, built when a part first wants them, and commands run in turn. */
final class Workbench
{
    private const RATE = 48_000;

    /** @var list<string> AAC, 20 seconds of it, repeated for as long as needed */
    public readonly array $packets;

    public readonly string $config;

    public readonly string $octavox;

    /**
     * @throws EncoderRefused
     * @throws BlockTooLarge
     * @throws LibraryMissing
     * @throws BytesMissing
     * @throws Failure
     */
    public function __construct(public readonly string $folder)
    {
        $this->octavox = dirname(__DIR__).'/octavox';
        $left = $right = [];
        $state = 1;
        for ($index = 0; $index < 20 * self::RATE; $index++) {
            $state = ($state * 1664525 + 1013904223) & 0xFFFFFFFF;
            $noise = ($state / 2147483648 - 1) * 0.05;
            $left[] = 0.3 * sin($index * 0.031) * sin($index * 0.0002) + 0.1 * sin($index * 0.11) + $noise;
            $right[] = 0.25 * sin($index * 0.045 + sin($index * 0.0001)) - $noise;
        }
        $encoder = Codecs::encoder(new AudioFormat(Codec::Aac, self::RATE, Layout::stereo()), RateControl::exactly(160));
        $packets = [];
        foreach ($encoder->encode(Block::fromChannels([$left, $right])) as $packet) {
            $packets[] = $packet->data;
        }
        $this->packets = $packets;
        $this->config = $encoder->audio()->config;
    }

    public function line(string $what, string $measured, string $wanted = ''): void
    {
        printf("%-58s %-40s %s\n", $what, $measured, $wanted);
    }

    /**
     * Wall seconds and peak memory in MiB of a command.
     *
     * @param  list<string>  $command
     * @return array{float, float}
     */
    public function run(array $command, ?string $input = null): array
    {
        $began = hrtime(true);
        $child = pcntl_fork();
        if ($child === 0) {
            fclose(STDOUT);
            $GLOBALS['null'] = fopen('/dev/null', 'w');
            if ($input !== null) {
                fclose(STDIN);
                $GLOBALS['in'] = fopen($input, 'r');
            }
            pcntl_exec($command[0], array_slice($command, 1));
            exit(127);
        }
        pcntl_waitpid($child, $status, 0, $usage);
        if (pcntl_wexitstatus($status) !== 0) {
            fwrite(STDERR, 'failed: '.implode(' ', $command)."\n");
            exit(1);
        }

        return [(hrtime(true) - $began) / 1e9, $usage['ru_maxrss'] / 1024];
    }

    /** @param  list<float|int>  $values */
    public function median(array $values): float
    {
        sort($values);

        return $values[intdiv(count($values), 2)];
    }

    /** Taking a large file away takes time of its own, which is no part of making another. */
    public function clear(): void
    {
        exec('rm -rf '.escapeshellarg("$this->folder/out").' '.escapeshellarg("$this->folder/bare").'; sync');
    }

    /** Path of a compiled C program; null where there is no compiler. */
    public function compiled(string $name, string ...$libraries): ?string
    {
        $places = '/usr/lib/'.trim((string) shell_exec('gcc -print-multiarch 2>&1'));
        $command = sprintf('gcc -O2 -w -o %s %s %s -lm 2>&1', escapeshellarg("$this->folder/$name"), escapeshellarg(__DIR__."/$name.c"),
            implode(' ', array_map(fn (string $library): string => "$places/$library", $libraries)));
        exec($command, $said, $status);

        return $status === 0 ? "$this->folder/$name" : null;
    }

    /** An MP4 of AAC; with pictures that are holes where bytes of half a second of them are told. */
    public function movie(string $name, int $seconds, int $pictureBytes = 0): string
    {
        return $this->once($name, fn (string $path) => Video::write($path, $this->config, $this->packets, $seconds, $pictureBytes));
    }

    /** Picture and sound; two hours of it are 11.4 GB, most of them holes. */
    public function film(string $extension, int $seconds = 7200): string
    {
        return $this->once("film-$seconds.$extension", fn (string $path) => match ($extension) {
            'mp4' => Video::write($path, $this->config, $this->packets, $seconds, 800_000),
            'mkv' => Video::matroska($path, $this->config, $this->packets, $seconds, 400_000),
            default => Video::transport($path, $this->config, $this->packets, $seconds, 100_000),
        });
    }

    /** 25 minutes of it in a format, or as many seconds. */
    public function long(string $format, int $seconds = 1500): string
    {
        $source = $format === 'wav' ? $this->movie("wav-$seconds.mp4", $seconds) : null;

        return $this->once("long-$seconds.$format",
            fn (string $path) => rename($this->make($source ?? $this->long('wav', $seconds), $format), $path));
    }

    /** The samples alone, 16 bits, stereo, as many seconds. */
    public function samples(int $seconds): string
    {
        return $this->once("samples-$seconds.raw", function (string $path) use ($seconds): void {
            $out = self::open($path, 'wb');
            $long = (string) file_get_contents($this->long('wav', min($seconds, 1500)), offset: 44);
            for ($left = $seconds * self::RATE * 4; $left > 0; $left -= strlen($long)) {
                fwrite($out, substr($long, 0, $left));
            }
            fclose($out);
        });
    }

    public function wave(int $seconds): string
    {
        return $this->once("wave-$seconds.wav", function (string $path) use ($seconds): void {
            $size = $seconds * self::RATE * 4;
            file_put_contents($path, 'RIFF'.pack('V', 36 + $size).'WAVEfmt '.pack('VvvVVvv', 16, 1, 2, self::RATE, 192_000, 4, 16)
                .'data'.pack('V', $size));
            $from = self::open($this->samples($seconds), 'rb');
            $out = self::open($path, 'ab');
            stream_copy_to_stream($from, $out);
        });
    }

    /** @throws Failure */
    public function make(string $path, string $format, ?Stopwatch $clock = null): string
    {
        return $this->made($this->plan($path, $format), $clock);
    }

    /** @throws Failure */
    public function made(Plan $plan, ?Stopwatch $clock = null): string
    {
        return (new Maker($clock ?? new Stopwatch))->make($plan, 'bench')->path;
    }

    /** @throws Failure */
    public function plan(string $path, string $format, string $pieces = ''): Plan
    {
        $video = VideoOutputs::named($format);
        $shaping = $pieces === '' ? new SoundSpec : new SoundSpec(pieces: $pieces);
        $spec = $video === null
            ? Spec::sound(Outputs::named($format), RateControl::none(), "$this->folder/out", existing: IfExists::Replace, shaping: $shaping)
            : Spec::video($video, null, RateControl::none(), "$this->folder/out", shaping: $shaping);

        return Planning::plan(Reader::read($path), (new OutputSpec(ifExists: IfExists::Replace))->over($spec));
    }

    /** @return list<string> */
    public function command(string $path, string $format, string ...$options): array
    {
        return [$this->octavox, 'make', $path, '--into', "$this->folder/out", '--format', $format, '--exists', 'replace',
            ...array_values($options)];
    }

    /** What a child is asked, as a file that it is given. */
    public function asked(mixed $document): string
    {
        file_put_contents("$this->folder/asked.json", json_encode($document));

        return "$this->folder/asked.json";
    }

    /** @param  callable(string): mixed  $build  told the path */
    private function once(string $name, callable $build): string
    {
        if (! file_exists("$this->folder/$name")) {
            $build("$this->folder/$name");
        }

        return "$this->folder/$name";
    }

    /** @return resource */
    public static function open(string $path, string $mode)
    {
        return fopen($path, $mode) ?: throw new \RuntimeException("$path cannot be opened.");
    }
}
