<?php

declare(strict_types=1);

/** What is planted: where, the body of a method, and a part of what the analyser says to it. */
const BREACHES = [
    // Rooms of the core.
    ['Octavox\Core\Sound', 'new \Octavox\Core\Media\NoProgress;', 'should not depend on Octavox\Core\Media\NoProgress'],
    ['Octavox\Core\Analysis', 'new \Octavox\Core\Make\Maker;', 'should not depend on Octavox\Core\Make\Maker'],
    ['Octavox\Core\Plan', 'new \Octavox\Core\Decode\TrackDecoder;', 'should not depend on Octavox\Core\Decode\TrackDecoder'],
    ['Octavox\Core\Make', '\Illuminate\Support\Str::random();', 'should not depend on Illuminate\Support\Str'],
    ['Octavox\Core\Make', '\App\Sources\Models\Source::removed();', 'should not depend on App\Sources\Models\Source'],
    ['Octavox\Core\Codec\Flac', '\FFI::cdef("");', 'should not depend on FFI'],
    ['Octavox\Core\Sound', '$x = function (\FFI\CData $data): void {}; $x(\FFI::new("int"));', 'should not depend on FFI'],
    ['Octavox\Core\Plan', '$class = \'FFI\'; $class::cdef("");', 'a library named in a string'],
    ['Octavox\Core\Container\Wave', '$class = \'Octavox\\Core\\Codec\\Mp3\\Native\\Lame\'; new $class;', 'a library named in a string'],
    ['Octavox\Core\Container\Wave', '\Octavox\Core\Codec\Codecs::decoder(1);', 'should not depend on Octavox\Core\Codec\Codecs'],
    ['Octavox\Core\Container\Wave', '\Octavox\Core\Codec\Aac\AacDecoder::priming("");',
        'should not depend on Octavox\Core\Codec\Aac\AacDecoder'],
    ['Octavox\Core\Plan', 'new \SplFileObject("x");', 'should not depend on SplFileObject'],
    ['Octavox\Core\Container\Wave', '(new \SplFileObject("x", "w"))->fwrite("y");', 'should not depend on SplFileObject'],
    ['Octavox\Core\Codec\Flac', 'new \SplTempFileObject;', 'should not depend on SplTempFileObject'],
    ['Octavox\Core\Plan', '\Octavox\Core\Reading\Opener::open("x");', 'should not depend on Octavox\Core\Reading\Opener'],
    ['Octavox\Core\Order', '\Octavox\Core\Container\Containers::openFile("x");', 'should not depend on Octavox\Core\Container\Containers'],
    // What is called where.
    ['Octavox\Core\Plan', 'is_file("x");', 'is_file() is not called here'],
    ['Octavox\Core\Order', '\file_get_contents("x");', 'file_get_contents() is not called here'],
    ['Octavox\Core\Container\Wave', 'fopen("x", "r");', 'fopen() is not called here'],
    ['Octavox\Core\Codec\Flac', 'file_exists("x");', 'file_exists() is not called here'],
    ['Octavox\Core\Make', 'rmdir("a");', 'rmdir() is not called here'],
    ['Octavox\Core\Analysis', '@UNLINK("a");', 'only makers and sinks write files'],
    ['Octavox\Core\Destination', 'microtime(true);', 'planning gives the same answer'],
    ['Octavox\Core\Make', 'proc_open("x", [], $pipes);', 'processes begin in'],
    ['Octavox\Core\Reading', '`ls`;', 'backticks'],
    ['App\Sources\Actions', '\shell_exec("ls");', 'processes begin in'],
    ['Octavox\Cli', 'shell_exec("ls");', 'processes begin in'],
    ['', 'var_dump(1);', 'left over from looking for a mistake'],
    ['Octavox\Core\Container\Wave', 'var_dump(1);', 'left over from looking for a mistake'],
    ['App\Files', 'dd(1);', 'left over from looking for a mistake'],
    ['App\Orders\Actions', 'dump(1);', 'left over from looking for a mistake'],
    ['', 'die("x");', 'nothing ends without a sentence'],
    ['Octavox\Core\Container\Wave', 'echo "x";', 'nothing prints'],
    ['Octavox\Core\Container\Wave', 'exit;', 'only scripts end'],
    ['App\Files', 'unserialize("");', 'may be hostile'],
    ['App\Http', '$x = $_GET["a"] ?? null;', 'what was asked comes as an argument'],
    ['Octavox\Core\Make', '$x = $_SERVER["argv"] ?? null;', 'what was asked comes as an argument'],
    // Rooms of the application.
    ['App\Files', 'new \App\Sources\Models\Source;', 'should not depend on App\Sources\Models\Source'],
    ['App\Orders\Actions', 'new \App\Results\Models\Result;', 'should not depend on App\Results\Models\Result'],
    ['App\Results\Actions', '\App\Results\Pages\Archive::plain("x");', 'should not depend on App\Results\Pages\Archive'],
    ['App\Sources\Values', 'new \App\Sources\Models\Source;', 'should not depend on App\Sources\Models\Source'],
    ['App\Sources\Actions', 'new \App\Sources\Jobs\ReadSource;', 'should not depend on App\Sources\Jobs\ReadSource'],
    ['App\Http', '\Octavox\Core\Reading\Opener::open(1);', 'should not depend on Octavox\Core\Reading\Opener'],
    ['App\Files', 'new \Octavox\Core\Container\Matroska\MatroskaFile;',
        'should not depend on Octavox\Core\Container\Matroska\MatroskaFile'],
    ['App\Results\Models', '\App\Http\RequestInput::sent(new \Illuminate\Http\Request, "x");',
        'should not depend on Illuminate\Http\Request'],
    ['App\Results\Models', 'route("x");', 'who asks is known in pages only'],
    ['App\Results\Values', 'app("x");', 'values hold values'],
    ['App\Results\Values', 'usleep(1);', 'values hold values'],
    ['Octavox\Core\Make', 'config("octavox.home");', 'the core knows no framework'],
    ['App\Files', 'env("OCTAVOX_HOME");', 'env'],
    // The database.
    ['App\Sources\Values', '\App\Sources\Models\Source::query()->count();', 'asked by queries and changed by actions'],
    ['App\Sources\Queries', '\App\Sources\Models\Source::query()->update(["name" => "x"]);', 'a query writes'],
    ['App\Sources\Queries', '(new \App\Sources\Models\Source)->save();', 'a query writes'],
    ['App\Sources\Queries', '\Illuminate\Support\Facades\DB::table("x")->delete();', 'a query writes'],
    ['App\Sources\Pages', '\App\Sources\Models\Source::query()->where("id", 1)->update(["name" => "x"]);',
        'asked by queries and changed by actions', 'Controller'],
    ['App\Sources\Pages', '\Illuminate\Support\Facades\DB::table("x");', 'should not depend on Illuminate\Support\Facades\DB',
        'Controller'],
    ['App\Sources\Pages', 'new \Octavox\Core\Plan\OrderPlanner;', 'should not depend on Octavox\Core\Plan\OrderPlanner', 'Controller'],
    ['App\Sources\Pages', '\App\Sources\Models\Source::query()->frist();', 'undefined method'],
    // Failures are told.
    ['Octavox\Core\Plan', 'throw \Octavox\Core\Plan\PlanUnreadable::broken("x");', 'throws checked exception'],
    ['Octavox\Core\Plan',
        '$this->broken(); } /** @throws \Octavox\Core\Plan\PlanUnreadable */ private function broken(): void { throw \Octavox\Core\Plan\PlanUnreadable::broken("x");',
        'throws checked exception'],
];

it('finds each breach of the rules that is planted', function () {
    $folder = dirname(__DIR__).'/storage/framework/breaches';
    is_dir($folder) || mkdir($folder, recursive: true);
    array_map(unlink(...), glob("$folder/*.php") ?: []);
    foreach (BREACHES as $number => $breach) {
        [$namespace, $code] = $breach;
        $name = 'Planted'.$number.($breach[3] ?? '');
        $isScript = $namespace === '';
        file_put_contents("$folder/$name.php", "<?php\n\ndeclare(strict_types=1);\n\n".($isScript ? "$code\n"
            : "namespace $namespace;\n\nfinal class $name\n{\n    public function work(): void\n    {\n        $code\n    }\n}\n"));
    }
    exec(sprintf('cd %s && vendor/bin/phpstan analyse -c tests/Architecture/breaches.neon --no-progress --memory-limit=2G --error-format=json %s 2>&1',
        escapeshellarg(dirname(__DIR__)), escapeshellarg($folder)), $lines);
    $found = json_decode((string) collect($lines)->first(fn (string $line): bool => str_starts_with($line, '{')), true)['files'] ?? [];
    $missed = [];
    foreach (BREACHES as $number => $breach) {
        $messages = array_column($found[$folder.'/Planted'.$number.($breach[3] ?? '').'.php']['messages'] ?? [], 'message');
        if (array_filter($messages, fn (string $message): bool => str_contains($message, $breach[2])) === []) {
            $missed[] = [$breach, $messages];
        }
    }
    array_map(unlink(...), glob("$folder/*.php") ?: []);
    expect($missed)->toBe([])->and(count($found))->toBe(count(BREACHES));
});
