<?php

declare(strict_types=1);

use App\Database\ImmediatePdo;
use Illuminate\Support\Facades\DB;

it('lets several processes read and then write in one transaction; each waits for the other', function () {
    expect(DB::connection()->getPdo())->toBeInstanceOf(ImmediatePdo::class);
    $path = $this->home.'/several.sqlite';
    $database = new PDO("sqlite:$path");
    $database->exec('PRAGMA journal_mode = WAL; CREATE TABLE counter (value INTEGER); INSERT INTO counter VALUES (0)');
    $script = sprintf(<<<'PHP'
        require %s;
        $database = new App\Database\ImmediatePdo('sqlite:'.%s);
        $database->exec('PRAGMA busy_timeout = 60000; PRAGMA synchronous = OFF');
        for ($turn = 0; $turn < 400; $turn++) {
            $database->beginTransaction();
            $value = (int) $database->query('SELECT value FROM counter')->fetchColumn();
            $database->exec('UPDATE counter SET value = '.($value + 1));
            $database->commit();
        }
        PHP, var_export(base_path('vendor/autoload.php'), true), var_export($path, true));
    $ends = [];
    $processes = array_map(function () use ($script) {
        $pipes = [];

        return proc_open([PHP_BINARY, '-r', $script], [2 => ['file', '/dev/null', 'w']], $pipes);
    }, range(1, 4));
    foreach ($processes as $process) {
        $ends[] = proc_close($process);
    }
    expect($ends)->toBe([0, 0, 0, 0])->and((int) $database->query('SELECT value FROM counter')->fetchColumn())->toBe(1600);
});
