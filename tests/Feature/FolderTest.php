<?php

declare(strict_types=1);

use App\Files\BinFolder;
use App\Files\Folder;
use App\Files\Shelves;
use App\Orders\Models\Order;
use App\Results\Models\Result;
use App\Results\Models\SafeCopy;

beforeEach(function () {
    $this->out = sys_get_temp_dir().'/octavox-out-'.bin2hex(random_bytes(6));
    mkdir($this->out);
    config(['octavox.shelves' => 'Out='.$this->out, 'octavox.writable' => 'Out', 'octavox.umask' => 0o007]);
    app(Shelves::class)->fence();
});

afterEach(fn () => exec('rm -rf '.escapeshellarg($this->out)));

/** @return string rights in figures, and the group */
function rights(string $path): string
{
    clearstatcache();

    return sprintf('%04o %d', fileperms($path) & 0o7777, filegroup($path));
}

it('makes folders of which others make the same at once', function () {
    for ($round = 0; $round < 20; $round++) {
        $path = "$this->out/$round/a/b/c/d";
        $children = [];
        for ($child = 0; $child < 4; $child++) {
            $children[$child] = pcntl_fork();
            if ($children[$child] === 0) {
                try {
                    Folder::ready($path);
                    $status = 0;
                } catch (Throwable) {
                    $status = 1;
                }
                posix_kill(getmypid(), $status === 0 ? SIGKILL : SIGTERM);
            }
        }
        foreach ($children as $child) {
            pcntl_waitpid($child, $status);
            expect(pcntl_wtermsig($status))->toBe(SIGKILL);
        }
        expect(is_dir($path))->toBeTrue();
    }
    touch("$this->out/file");
    expect(fn () => Folder::ready("$this->out/file/x"))->toThrow(RuntimeException::class);
});

it('puts what a result replaces into the bin, from which it comes back', function () {
    file_put_contents("$this->out/Gates.flac", 'not made here');
    $source = $this->bring('Gates.wav', $this->wave());
    $this->post('/orders', ['sources' => (string) $source->id, 'format' => 'flac']);
    $order = Order::query()->latest('id')->firstOrFail();
    $this->patch("/orders/$order->id", ['place' => 'shelf:Out', 'existing' => 'replace'])->assertSee('it goes into the bin');
    $this->get('/bin')->assertSee('Nothing is in it.');
    $this->post("/orders/$order->id/place")->assertSessionMissing('said');
    expect(Result::query()->sole()->state->value)->toBe('done')->and(filesize("$this->out/Gates.flac"))->toBeGreaterThan(1000);
    $page = (string) $this->get('/bin')->assertOk()->assertSee('file that a result replaced')->assertSee($this->out)->getContent();
    expect(preg_match('/name="replaced\[\]" value="([0-9a-f]{32})"/', $page, $found))->toBe(1);
    $this->post('/bin', ['do' => 'back', 'replaced' => ['x', $found[1]]])->assertSessionHas('said', fn (string $said): bool => str_starts_with($said, '1 of 2 could not'));
    expect(file_get_contents("$this->out/Gates 2.flac"))->toBe('not made here');
    $this->get('/bin')->assertSee('Nothing is in it.');
    // For good only by hand.
    $this->patch('/orders/'.$order->id, [])->assertStatus(409);
    rename("$this->out/Gates 2.flac", "$this->out/Gates.flac");
    $this->post('/orders', ['sources' => (string) $source->id, 'format' => 'flac']);
    $order = Order::query()->latest('id')->firstOrFail();
    $this->patch("/orders/$order->id", ['place' => 'shelf:Out', 'existing' => 'replace']);
    $this->post("/orders/$order->id/place");
    $this->post('/bin', ['do' => 'empty'])->assertSessionHas('said', 'One was deleted for good.');
    $this->get('/bin')->assertSee('Nothing is in it.');
});

it('says where there is no bin that what it replaces is gone for good', function () {
    file_put_contents("$this->out/Gates.flac", 'not made here');
    chmod($this->out, 0555);
    config(['octavox.home' => '/dev/shm/'.basename($this->home)]);
    expect(app(BinFolder::class)->takes("$this->out/Gates.flac"))->toBe(posix_geteuid() === 0);
    config(['octavox.writable' => '', 'octavox.results' => '/dev/shm/results']);
    expect(app(BinFolder::class)->takes("$this->out/Gates.flac"))->toBeFalse();
    chmod($this->out, 0755);
    config(['octavox.home' => $this->home]);
});

it('gives what lies on a shelf the rights of its folder, and keeps for itself what lies with it', function () {
    umask(0077);
    // A folder that gives its own group to all in it.
    chgrp($this->out, 65534);
    chmod($this->out, 0o2775);
    $source = $this->bring('Gates.wav', $this->wave());
    $this->post('/orders', ['sources' => (string) $source->id, 'format' => 'flac']);
    $order = Order::query()->latest('id')->firstOrFail();
    $this->patch("/orders/$order->id", ['place' => 'shelf:Out', 'name' => 'Steam day/{stem}', 'care' => 'copy']);
    $this->put('/settings', ['copies_on' => 'Out']);
    $this->post("/orders/$order->id/place")->assertSessionMissing('said');
    $result = Result::query()->sole();
    expect($result->state->value)->toBe('done', (string) $result->error_says);
    $copy = SafeCopy::query()->sole()->path;
    expect($copy)->toStartWith($this->out.'/');
    $this->post('/outside/page', ['do' => 'beside', 'results' => (string) $result->id, 'title' => 'Steam day', 'accent' => '#004488']);
    $page = glob("$this->out/Steam day/*.html")[0];
    foreach ([$result->path, $copy, dirname($copy).'/SHA256SUMS', $page] as $file) {
        expect(rights((string) $file))->toBe('0660 65534', (string) $file);
    }
    expect(rights(dirname((string) $result->path)))->toBe('2770 65534')->and(rights(dirname($copy)))->toBe('2770 65534')
        ->and(substr(rights(dirname($source->path)), 0, 4))->toBe('0700')->and(umask())->toBe(0077);
    umask(0022);
});
