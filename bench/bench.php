<?php

declare(strict_types=1);

// The benchmarks: ratios of whole processes measured in turn (A, B, A, B …) on this machine, so that its mood counts for both.

use Octavox\Bench\Stopwatch;
use Octavox\Bench\Video;
use Octavox\Core\Codec\Codecs;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Make\Maker;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Order\IfExists;
use Octavox\Core\Parallel\CoreScript;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Testing\Planning;
use Octavox\Core\Testing\Spec;

require __DIR__.'/../core/bin/autoload.php';
require __DIR__.'/Video.php';
require __DIR__.'/Stopwatch.php';
ini_set('memory_limit', '2G');

$folder = sys_get_temp_dir().'/octavox-bench-'.getmypid();
mkdir($folder);
register_shutdown_function(fn () => exec('rm -rf '.escapeshellarg($folder)));
$octavox = dirname(__DIR__).'/octavox';

/** Wall seconds and peak memory in MiB of a command. */
$run = function (array $command, ?string $input = null): array {
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
};
$median = function (array $values): float {
    sort($values);

    return $values[intdiv(count($values), 2)];
};
// Taking a large file away takes time of its own, which is no part of making another.
$clear = function () use ($folder): void {
    exec('rm -rf '.escapeshellarg("$folder/out").' '.escapeshellarg("$folder/bare").'; sync');
};
$line = fn (string $what, string $result, string $wanted) => printf("%-52s %-34s %s\n", $what, $result, $wanted);

echo "Preparing made-up films …\n";
$left = $right = [];
$state = 1;
for ($index = 0; $index < 20 * 48000; $index++) {
    $state = ($state * 1664525 + 1013904223) & 0xFFFFFFFF;
    $noise = ($state / 2147483648 - 1) * 0.05;
    $left[] = 0.3 * sin($index * 0.031) * sin($index * 0.0002) + 0.1 * sin($index * 0.11) + $noise;
    $right[] = 0.25 * sin($index * 0.045 + sin($index * 0.0001)) - $noise;
}
$encoder = Codecs::encoder(new AudioFormat(Codec::Aac, 48000, Layout::stereo()), RateControl::constant(160));
$packets = [];
foreach ($encoder->encode(Block::fromChannels([$left, $right])) as $packet) {
    $packets[] = $packet->data;
}
unset($left, $right);
$config = $encoder->audio()->config;
$films = ['wav' => 1500, 'mp3' => 150];
foreach ($films as $format => $seconds) {
    Video::write("$folder/$format.mp4", $config, $packets, $seconds, 0);
    $count = intdiv($seconds * 48000, 1024);
    $file = fopen("$folder/$format.packets", 'wb');
    fwrite($file, pack('V', strlen($config)).$config);
    for ($index = 0; $index < $count; $index++) {
        $packet = $packets[$index % count($packets)];
        fwrite($file, pack('V', strlen($packet)).$packet);
    }
    fclose($file);
}
Video::write("$folder/film.mp4", $config, $packets, 7200, 800_000);

$library = '/usr/lib/'.trim((string) shell_exec('gcc -print-multiarch 2>/dev/null'));
$compiled = (int) trim((string) shell_exec('command -v gcc >/dev/null && gcc -O2 -o '.escapeshellarg("$folder/baseline").' '.escapeshellarg(
    __DIR__.'/baseline.c')." $library/libfaad.so.2 $library/libmp3lame.so.0 $library/libsamplerate.so.0 -lm 2>/dev/null; echo $?")) === 0;

echo "\n";
$line('what', 'measured', 'wanted');
$line(str_repeat('-', 50), str_repeat('-', 32), '------');
foreach ($films as $format => $seconds) {
    $make = [$octavox, 'make', "$folder/$format.mp4", '--into', "$folder/out", '--format', $format,
        ...($format === 'wav' ? [] : ['--kbps', '192']), '--exists', 'replace'];
    $times = ['octavox' => [], 'bare' => [], 'ratio' => []];
    for ($round = 0; $round < 5; $round++) {
        $clear();
        [$mine] = $run($make);
        [$bare] = $compiled ? $run(["$folder/baseline", "$folder/$format.packets", $format, "$folder/bare"]) : [NAN];
        if ($round > 0) {
            $times['octavox'][] = $mine;
            $times['bare'][] = $bare;
            $times['ratio'][] = $mine / $bare;
        }
    }
    $speed = $seconds / $median($times['octavox']);
    $line("AAC to $format, against the bare library calls in C",
        sprintf('%.2f times as long (%.0f × real time)', $median($times['ratio']), $speed), '≤ 1.15');

    $plan = Planning::plan(Reader::read("$folder/$format.mp4"),
        Spec::sound(Outputs::named($format), ($format ?? '') === 'wav' ? RateControl::none() : RateControl::constant(192), "$folder/out",
            existing: IfExists::Replace));
    $clock = new Stopwatch;
    $began = hrtime(true);
    (new Maker($clock))->make($plan, 'bench');
    $whole = (hrtime(true) - $began) / 1e9;
    $line('  the making alone, not verified', sprintf('%.2f times as long', $clock->making() / $median($times['bare'])), '');
    $line('  of that: reading back and verifying', sprintf('%.0f %%', 100 * $clock->verifying() / $whole), '');
    $line('  of that: what was not on the disk by then',
        sprintf('%.0f %%', 100 * ($whole - $clock->making() - $clock->verifying()) / $whole), '');
    $line('  of that: starting and ending processes', sprintf('%.2f s', max(0.0, $median($times['octavox']) - $whole)), '');
}

$began = hrtime(true);
$reading = Reader::read("$folder/film.mp4");
$took = (hrtime(true) - $began) / 1e9;
$line(sprintf('reading a 2-hour film of %.1f GB', $reading->bytes / 1e9),
    sprintf('%.3f s, %.2f MB read', $took, $reading->bytesRead / 1e6), '< 0.3 s');

$plan = Planning::plan($reading, Spec::sound(Outputs::named('wav'), RateControl::none(), "$folder/out"));
file_put_contents("$folder/plan.json", json_encode($plan->toArray()));
[$took, $memory] = $run([...CoreScript::command('maker'), 'bench'], "$folder/plan.json");
$line('memory of a delivery of 2 hours (AAC to WAV)', sprintf('%.0f MiB', $memory), '< 128 MiB');
$line('  its speed', sprintf('%.0f × real time', 7200 / $took), '');

$source = Octavox\Core\Reading\Opener::open("$folder/film.mp4");
$sound = 0;
foreach ($source->media->packets($source->tracks[1], 0, PHP_INT_MAX >> 2) as $packet) {
    $sound += strlen($packet->data);
}
$line('bytes read for all of its sound', sprintf('%.1f MB of %.1f MB sound, %.1f GB picture', $source->media->source()->bytesRead() / 1e6,
    $sound / 1e6, $reading->tracks[0]->codedBytes / 1e9), 'no picture');

mkdir("$folder/small");
Video::write("$folder/small/0.mp4", $config, $packets, 5, 0);
for ($index = 1; $index < 400; $index++) {
    link("$folder/small/0.mp4", "$folder/small/$index.mp4");
}
[$took] = $run([$octavox, 'read', "$folder/small", '--json']);
$line('small files read from a folder', sprintf('%.0f a second', 400 / $took), '≥ 200');

require __DIR__.'/more.php';
