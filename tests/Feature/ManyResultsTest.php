<?php

declare(strict_types=1);

use App\Http\ZipWriter;
use App\Orders\Models\Order;
use App\Results\Models\Result;
use App\Results\Values\OrderProgress;
use App\Results\Values\ResultState;
use Illuminate\Support\Facades\Queue;

/** @return array<string, array{int, string}> size and CRC-32 by name, as another reader of ZIP files finds them; it checks every sum */
function listedByOthers(string $path): array
{
    $script = 'import sys, zipfile, json; z = zipfile.ZipFile(sys.argv[1]); assert z.testzip() is None; '
        .'print(json.dumps([[i.filename, i.file_size, "%08x" % i.CRC] for i in z.infolist()]))';
    $process = proc_open(['python3', '-c', $script, $path], [['file', '/dev/null', 'r'], ['pipe', 'w'], ['pipe', 'w']], $pipes);
    $said = stream_get_contents($pipes[1]);
    expect(stream_get_contents($pipes[2]))->toBe('')->and(proc_close($process))->toBe(0);

    return array_column(array_map(fn (array $one): array => [$one[0], [$one[1], $one[2]]], json_decode((string) $said, true)), 1, 0);
}

it('gives away an order as one ZIP, with its folders, that another reader finds whole', function () {
    $order = $this->draft(['format' => 'flac', 'name' => '{number}/é {stem}']);
    $this->post("/orders/$order->id/place");
    $answer = $this->post('/results/many', ['do' => 'download', 'order' => $order->id])->assertOk()
        ->assertHeader('Content-Type', 'application/zip');
    expect($answer->headers->get('Content-Disposition'))->toContain('Order 1.zip');
    file_put_contents($this->home.'/all.zip', $answer->streamedContent());
    $found = listedByOthers($this->home.'/all.zip');
    $wanted = Result::query()->with('order')->get()->mapWithKeys(fn (Result $one): array => [$one->pathInOrder() => [filesize((string) $one
        ->path),
        hash_file('crc32b', (string) $one->path)]])->all();
    expect($found)->toBe($wanted)->and(array_keys($found))->toBe(['1/é a.flac', '2/é b.flac', '3/é c.flac']);
});

it('puts marked results of several orders into one ZIP, none over another, and leaves out what went away', function () {
    foreach (['flac', 'flac', 'wav'] as $format) {
        $order = $this->draft(['format' => $format], 'a.wav', 'b.wav');
        $this->post("/orders/$order->id/place");
    }
    unlink((string) Result::query()->findOrFail(2)->path);
    $bytes = $this->post('/results/many', ['do' => 'download', 'results' => ['1', '2', '3', '5', '999', 'x']])->assertOk()
        ->streamedContent();
    file_put_contents($this->home.'/some.zip', $bytes);
    expect(array_keys(listedByOthers($this->home.'/some.zip')))->toBe(['Not in this archive.txt', 'a.flac', 'a 2.flac', 'a.wav']);
    file_put_contents($this->home.'/none.zip', $this->post('/results/many', ['do' => 'download'])->assertOk()->streamedContent());
    expect(listedByOthers($this->home.'/none.zip'))->toBe([]);
    $this->post('/results/many', ['do' => 'burn'])->assertNotFound();
});

it('writes sizes of 64 bits where they are needed, more files than 16 bits can count, and as many bytes as it said', function () {
    $path = $this->home.'/large.zip';
    $out = fopen($path, 'wb');
    $zip = new ZipWriter(function (string $bytes) use ($out): void {
        // Zeros are not written, so that gigabytes of them take no room.
        trim($bytes, "\0") === '' ? fseek($out, strlen($bytes), SEEK_CUR) : fwrite($out, $bytes);
    });
    $length = new ZipWriter(fn () => null);
    $sparse = $this->home.'/sparse';
    $add = function (string $name, int $size) use ($zip, $length, $sparse): void {
        $handle = fopen($sparse, 'c+b');
        ftruncate($handle, $size);
        $zip->add($name, $handle, $size, 1_700_000_000);
        fclose($handle);
        $length->count($name, $size);
    };
    $add('large', 4_400_000_000);
    $add('behind it', 12);
    for ($number = 0; $number < 66_000; $number++) {
        $add((string) $number, 0);
    }
    $zip->finish();
    $length->finish();
    fclose($out);
    $found = listedByOthers($path);
    expect(count($found))->toBe(66_002)->and($found['large'][0])->toBe(4_400_000_000)->and($found['behind it'])->toBe([12, hash('crc32b',
        str_repeat("\0", 12))])
        ->and(filesize($path))->toBe($length->length());
});

it('gives away what is done of an order while the rest waits, failed or was cancelled, and lists that', function () {
    $order = $this->draft(['format' => 'flac'], 'a.wav', 'b.wav', 'c.wav', 'd.wav');
    $this->post("/orders/$order->id/place");
    $change = fn (int $id, ResultState $state, array $more = []) => Result::query()->whereKey($id)->update(['state' => $state, 'path' => null, 'receipt' => null] + $more);
    $change(1, ResultState::Cancelled);
    $change(3, ResultState::Waiting);
    $change(4, ResultState::Failed, ['error_says' => 'The drive went away.']);
    $answer = $this->post('/results/many', ['do' => 'download', 'order' => $order->id])->assertOk();
    $bytes = $answer->streamedContent();
    file_put_contents($this->home.'/part.zip', $bytes);
    expect(array_keys(listedByOthers($this->home.'/part.zip')))->toBe(['Not in this archive.txt', 'b.flac'])
        ->and((int) $answer->headers->get('Content-Length'))->toBe(strlen($bytes));
    $zip = new ZipArchive;
    $zip->open($this->home.'/part.zip');
    expect($zip->getFromName('Not in this archive.txt'))->toContain('a.flac: cancelled', 'c.flac: waiting',
        'd.flac: failed: The drive went away.');
    // A file that becomes shorter while it is sent: the archive ends before its length, and nothing else is sent.
    $answer = $this->post('/results/many', ['do' => 'download', 'order' => $order->id]);
    file_put_contents((string) Result::query()->findOrFail(2)->path, 'short');
    $cut = $answer->streamedContent();
    expect(strlen($cut))->toBeLessThan((int) $answer->headers->get('Content-Length'))->and($cut)->toEndWith('short');
});

it('begins all again that failed, cancels what waits, and takes results off the list', function () {
    $order = $this->draft(['format' => 'flac']);
    Queue::fake();
    $this->post("/orders/$order->id/place");
    [$one, $two, $three] = Result::query()->orderBy('id')->get()->all();
    $one->update(['state' => ResultState::Failed, 'error_says' => 'It broke.']);
    $this->get('/results')->assertOk()->assertSee('0 of 3 done')->assertSee('1 failed')->assertSee('try all again that failed');
    $this->post('/results/many', ['do' => 'retry', 'order' => $order->id])->assertRedirect()
        ->assertSessionHas('said', 'One result begun again.');
    expect($one->refresh()->state)->toBe(ResultState::Waiting);
    $this->post('/results/many', ['do' => 'cancel', 'results' => "$one->id,$two->id"])->assertSessionHas('said', '2 results cancelled.');
    $this->post('/results/many', ['do' => 'forget', 'order' => $order->id])
        ->assertSessionHas('said', fn (string $said): bool => str_contains($said, '2 results'));
    expect(Result::query()->pluck('id')->all())->toBe([$three->id])->and(Order::query()->count())->toBe(1);
    $three->update(['state' => ResultState::Failed]);
    $this->post('/results/many', ['do' => 'forget', 'results' => "$three->id"]);
    expect(Order::query()->count())->toBe(0);
});

it('puts files into the bin and back, numbered where the name is taken by then, and deletes for good', function () {
    $order = $this->draft(['format' => 'flac'], 'a.wav');
    $this->post("/orders/$order->id/place");
    $result = Result::query()->sole();
    $path = (string) $result->path;
    $sum = hash_file('xxh128', $path);
    $this->post('/results/many', ['do' => 'bin', 'results' => "$result->id"])->assertSessionHas('said');
    expect(is_file($path))->toBeFalse()->and(hash_file('xxh128', (string) $result->refresh()->binned))->toBe($sum)
        ->and($result->isThere())->toBeFalse();
    $this->get("/results/$result->id/file")->assertNotFound();
    $this->get('/results')->assertOk()->assertSee('in the bin');
    $this->get('/results?show=bin')->assertOk()->assertSee('Put back')->assertSee('a.flac');
    file_put_contents($path, 'another');
    $this->post('/results/many', ['do' => 'put-back', 'results' => "$result->id"]);
    expect($result->refresh()->binned)->toBeNull()->and($result->path)->toBe(dirname($path).'/a 2.flac')
        ->and(hash_file('xxh128', (string) $result->path))->toBe($sum)->and(file_get_contents($path))->toBe('another');
    $this->post('/results/many', ['do' => 'destroy', 'results' => "$result->id"]);
    expect(is_file((string) $result->path))->toBeTrue();
    $this->post('/results/many', ['do' => 'bin', 'results' => "$result->id"]);
    $this->post('/results/many', ['do' => 'destroy', 'results' => "$result->id"]);
    expect(Result::query()->count())->toBe(0)->and(glob($this->home.'/bin/*'))->toBe([]);
});

it('finds any result by its name or its source, by how it ended, and by its folder', function () {
    foreach (['north.wav', 'south.wav'] as $name) {
        $order = $this->draft(['format' => 'flac', 'name' => '{stem} out'], $name);
        $this->post("/orders/$order->id/place");
    }
    Result::query()->whereKey(2)->update(['state' => ResultState::Failed, 'error_says' => 'It broke.']);
    $this->get('/results?find=NORTH')->assertOk()->assertSee('north out.flac')->assertDontSee('south out.flac');
    $this->get('/results?find=south.wav')->assertOk()->assertSee('south out.flac')->assertDontSee('north out.flac');
    $this->get('/results?show=failed')->assertOk()->assertSee('south out.flac')->assertDontSee('north out.flac');
    $this->get('/results?find=100%25')->assertOk()->assertSee('No result is like that');
    $folder = dirname((string) Result::query()->findOrFail(1)->path);
    $this->get('/results?in='.urlencode($folder))->assertOk()->assertSee('north out.flac')->assertDontSee('south out.flac');
    $this->get('/results?in[]=x&find[]=y&show=?')->assertOk();
});

it('asks the same of other sources as of a result, also after its source left the list', function () {
    $order = $this->draft(['format' => 'flac', 'layout' => 'mono'], 'a.wav');
    $this->patch("/orders/$order->id/lines/{$order->lines[0]->id}", ['scope' => 'line', 'layout' => 'swap', 'tags' => ['title' => 'own']]);
    $this->post("/orders/$order->id/place");
    $this->delete('/sources/'.$order->lines[0]->source_id);
    $result = Result::query()->sole();
    $this->post("/results/$result->id/again")->assertRedirect('/orders/2');
    $draft = Order::query()->findOrFail(2);
    expect($draft->asked()->sounds()[0]->layout)->toBe('swap')->and($draft->asked()->tags)->toBeNull()
        ->and($draft->lines()->count())->toBe(0);
});

it('shows drafts nowhere among the results', function () {
    $this->draft(['format' => 'flac'], 'a.wav');
    $this->get('/results')->assertOk()->assertSee('Nothing was made yet');
});

it('tells how far an order is, in parts and in all', function (array $rows, string $says, int $percent) {
    $progress = OrderProgress::of(
        array_map(fn (array $row): stdClass => (object) array_combine(['state', 'files', 'seconds', 'made', 'speed'], $row), $rows));
    expect([$progress->says(), $progress->percent()])->toBe([$says, $percent]);
})->with([
    [[['done', 3, 30.0, 30.0, 0]], '3 of 3 done', 100],
    [[['done', 1, 10.0, 10.0, 0], ['failed', 1, 10.0, 3.0, 0]], '1 of 2 done · 1 failed', 100],
    [[['done', 1, 10.0, 10.0, 0], ['making', 2, 100.0, 45.0, 10.0], ['waiting', 1000, 890.0, 0.0, 0]], '1 of 1,003 done · 1:35 left', 5],
    [[['waiting', 2, 20.0, 0.0, 0]], '0 of 2 done', 0], [[['skipped', 1, 0.0, 0.0, 0]], '1 of 1 done', 100],
]);
