<?php

declare(strict_types=1);

use App\Files\CopyFailed;
use App\Orders\Models\Order;
use App\Results\Actions\ClearSources;
use App\Results\Actions\CopySafely;
use App\Results\Actions\EndResult;
use App\Results\Jobs\MakeResult;
use App\Results\Models\Result;
use App\Results\Models\SafeCopy;
use App\Results\Queries\MadeHere;
use App\Results\Values\ResultState;
use App\Sources\Actions\RemoveSources;
use App\Sources\Models\Group;
use App\Sources\Models\Source;
use Illuminate\Support\Facades\Queue;
use Octavox\Core\Make\ChildDied;
use Octavox\Core\Make\Interrupted;
use Octavox\Core\Make\Journal;
use Octavox\Core\Make\Placing;
use Octavox\Core\Parallel\Abandoned;
use Tests\TestCase;

/** Files on a shelf that is open for writing, taken in. */
function onShelf(mixed $test, string ...$names): array
{
    config(['octavox.writable' => 'Videos']);
    app()->forgetScopedInstances();
    foreach ($names as $number => $name) {
        @mkdir(dirname($test->home.'/shelf/'.$name), recursive: true);
        file_put_contents($test->home.'/shelf/'.$name, TestCase::wave(4800 + 100 * $number));
        touch($test->home.'/shelf/'.$name, 1_700_000_000 + $number);
    }
    $test->post('/shelves/Videos', ['paths' => json_encode($names)])->assertRedirect('/sources');

    return Source::query()->orderBy('id')->get()->all();
}

/** An order of these sources that takes care of them in some way. */
function careful(mixed $test, array $sources, string $care, string $format = 'flac'): Order
{
    $test->get('/order?'.http_build_query(['sources' => implode(',', array_column($sources, 'id')), 'format' => $format]));
    $order = Order::query()->latest('id')->firstOrFail();
    $test->patch("/orders/$order->id", ['care' => $care])->assertOk();
    $test->post("/orders/$order->id/place")->assertRedirect();

    return $order->refresh();
}

it('copies each source first, reads the copy again, and writes its sum down as others check it', function () {
    [$source] = onShelf($this, 'day/Lift ä.wav');
    $order = careful($this, [$source], 'copy');
    $copy = SafeCopy::query()->sole();
    expect($copy->path)->toStartWith($this->home.'/copies/')->and(file_get_contents($copy->path))->toBe(file_get_contents($source->path))
        ->and($copy->sha256)->toBe(hash_file('sha256', $source->path))->and(filemtime($copy->path))->toBe(1_700_000_000);
    exec('cd '.escapeshellarg(dirname($copy->path)).' && sha256sum --check --strict SHA256SUMS 2>&1', $said, $code);
    expect($code)->toBe(0, implode("\n", $said))->and(Result::query()->sole()->state)->toBe(ResultState::Done)
        ->and(array_diff(scandir(dirname($copy->path)), ['.', '..']))->toHaveCount(2)->and($order->refresh()->care->copies())->toBeTrue();
    $this->get('/results')->assertSee('One safe copy')->assertSee(dirname($copy->path));
    // Twice the same name in one order lies there twice, and a second order has a folder of its own.
    careful($this, [$source], 'copy', 'wav');
    expect(SafeCopy::query()->count())->toBe(2);
});

it('makes nothing of what it cannot copy, goes on when somebody cancels, and leaves nothing half copied', function () {
    [$source] = onShelf($this, 'a.wav');
    Queue::fake([MakeResult::class]);
    $result = Result::ofOrder(careful($this, [$source], 'copy'))->sole();
    expect(fn () => app(CopySafely::class)->before($result, fn (): bool => false))->toThrow(Abandoned::class);
    $folder = $this->home.'/copies/'.sprintf('%04d', $result->order_id);
    expect(array_diff(scandir($folder), ['.', '..']))->toBe([])->and(SafeCopy::query()->count())->toBe(0);
    rename($source->path, $source->path.'.away');
    expect(fn () => app(CopySafely::class)->before($result->refresh(), fn (): bool => true))->toThrow(CopyFailed::class);
    rename($source->path.'.away', $source->path);
    $parts = 0;
    app(CopySafely::class)->before($result->refresh(), function (int $done) use (&$parts): bool {
        $parts++;

        return true;
    });
    expect($parts)->toBeGreaterThan(1)->and(SafeCopy::query()->count())->toBe(1);
    // A copy that is there is not made again.
    app(CopySafely::class)->before($result->refresh(), fn (): bool => false);
});

it('puts copies on the shelf that is set for them', function () {
    [$source] = onShelf($this, 'a.wav');
    $this->put('/settings', ['copies_on' => 'Videos', 'care' => 'copy'])->assertRedirect();
    $this->get('/settings')->assertSee('<option selected>Videos</option>', false);
    $this->get('/order?sources='.$source->id);
    $order = Order::query()->latest('id')->firstOrFail();
    expect($order->care->copies())->toBeTrue();
    $this->post("/orders/$order->id/place");
    $path = $this->home.'/shelf/Safe copies/'.sprintf('%04d', $order->id).'/a.wav';
    expect(SafeCopy::query()->sole()->path)->toBe($path)->and(app(MadeHere::class)->find([$path, $source->path]))->toBe([$path => true]);
});

it('puts sources into the bin once all that was made of them is verified, and gives them back', function () {
    [$first, $second] = onShelf($this, 'day/a.wav', 'day/b.wav');
    Queue::fake([MakeResult::class]);
    $order = careful($this, [$first, $second], 'bin');
    $results = Result::ofOrder($order)->get();
    app()->call([new MakeResult, 'handle']);
    expect(is_file($first->path))->toBeFalse()->and(is_file($second->path))->toBeTrue()->and(Source::query()->pluck('id')->all())
        ->toBe([$second->id])
        ->and($order->refresh()->cleared_at)->toBeNull();
    // The other one fails: its source stays.
    file_put_contents($second->path, 'changed');
    app()->call([new MakeResult, 'handle']);
    expect($results[1]->refresh()->state)->toBe(ResultState::Failed)->and(is_file($second->path))->toBeTrue()
        ->and(Result::ofOrder($order)->where('state', ResultState::Done)->sole()->isThere())->toBeTrue();
    $this->get('/bin')->assertSee('a.wav')->assertSee('moved here from');
    $bytes = (string) file_get_contents((string) Source::removed()->sole()->binned);
    // Its place is taken by now: it comes back under another name, and nothing is overwritten.
    file_put_contents($first->path, 'somebody else');
    $this->post('/bin', ['do' => 'back', 'sources' => [$first->id]])->assertSessionHas('said', 'One put back where it was.');
    expect(Source::query()->find($first->id)->path)->toBe(dirname($first->path).'/a 2.wav')
        ->and(file_get_contents(dirname($first->path).'/a 2.wav'))->toBe($bytes)->and(file_get_contents($first->path))
        ->toBe('somebody else');
});

it('bins a source only when nobody needs it any more, and only where that is allowed', function () {
    [$source] = onShelf($this, 'a.wav');
    Queue::fake([MakeResult::class]);
    $other = careful($this, [$source], 'keep', 'wav');
    $order = careful($this, [$source], 'bin');
    app()->call([new MakeResult, 'handle']);
    Result::query()->where('order_id', $other->id)->update(['state' => ResultState::Waiting]);
    app()->call([new MakeResult, 'handle']);
    Result::ofOrder($order)->update(['state' => ResultState::Done]);
    $made = Result::ofOrder($order)->sole();
    file_put_contents($made->update(['path' => $this->home.'/results/x.flac']) ? $made->path : '', 'x');
    Result::query()->where('order_id', $other->id)->update(['state' => ResultState::Waiting]);
    app(ClearSources::class)->run();
    expect(is_file($source->path))->toBeTrue();
    Result::query()->where('order_id', $other->id)->update(['state' => ResultState::Done]);
    config(['octavox.writable' => '']);
    expect(app(RemoveSources::class)->bin($source->refresh()))->toBeFalse()->and(is_file($source->path))->toBeTrue();
    config(['octavox.writable' => 'Videos']);
    // Another file by now: it is not what was verified.
    file_put_contents($source->path, 'another');
    expect(app(RemoveSources::class)->bin($source->refresh()))->toBeFalse()->and(Source::query()->count())->toBe(1);
});

it('finds a source where it was whose move into the bin was cut off', function () {
    [$source] = onShelf($this, 'a.wav');
    $source->update(['binned' => $this->home.'/bin/source-1/a.wav', 'removed_at' => now()]);
    expect(app(RemoveSources::class)->putBack([$source->id]))->toBe(1)->and(Source::query()->sole()->binned)->toBeNull();
});

it('groups what was dropped in a folder, what was taken in whole, and what somebody puts together', function () {
    onShelf($this, 'monday/one/a.wav', 'monday/b.wav', 'loose.wav');
    Source::query()->get()->each->forceDelete();
    $this->post('/shelves/Videos', ['paths' => json_encode(['monday', 'loose.wav'])])->assertRedirect('/sources');
    expect(Group::query()->sole()->title)->toBe('monday')->and(Source::query()->whereNotNull('group_id')->pluck('name')->sort()->values()
        ->all())
        ->toBe(['a.wav', 'b.wav']);
    file_put_contents($this->home.'/shelf/monday/c.wav', TestCase::wave(900));
    $this->post('/shelves/Videos', ['paths' => json_encode(['monday'])]);
    $group = Group::query()->sole();
    expect($group->sources)->toHaveCount(3);
    $this->get('/sources?show=group:'.$group->id)->assertSee('a.wav')->assertDontSee('loose.wav')
        ->assertSee('Take all 3 shown off the list');
    // Two drops of folders that are called alike are two groups.
    foreach (['first', 'second'] as $drop) {
        $this->call('POST', '/uploads', server: $this->transformHeadersToServerVars(['Tus-Resumable' => '1.0.0', 'Upload-Length' => '0',
            'Upload-Metadata' => 'filename '.base64_encode('x.wav').',path '.base64_encode('Day/x.wav').',drop '.base64_encode($drop)]))
            ->assertCreated();
    }
    expect(Group::query()->where('title', 'Day')->count())->toBe(2);
    $loose = Source::query()->where('name', 'loose.wav')->sole();
    $this->post('/ticks', ['sources' => (string) $loose->id, 'on' => '1']);
    $this->post('/sources/many', ['do' => 'group', 'title' => ' Odds ']);
    expect($loose->refresh()->group->title)->toBe('Odds');
    $this->patch("/sources/$loose->id", ['group' => '', 'note' => 'Keep <this>', 'name' => 'Gate speech'])->assertRedirect();
    expect(Group::query()->where('title', 'Odds')->exists())->toBeFalse();
    $this->get('/sources?find=gate+speech')->assertSee('Gate speech')->assertSee('loose.wav')->assertSee('Keep &lt;this&gt;', false);
    $this->get("/sources/$loose->id")->assertSee('Gate speech');
    $this->sheet("/order?sources=$loose->id&format=flac")->assertSee('Gate speech.flac');
});

it('takes many off the list at once, and gives them back', function () {
    $sources = onShelf($this, 'a.wav', 'b.wav', 'c.txt.wav');
    $this->post('/ticks', ['sources' => $sources[0]->id.','.$sources[1]->id, 'on' => '1']);
    $this->post('/sources/many', ['do' => 'remove'])->assertSessionHas('said', '2 were taken off the list.')
        ->assertSessionHas('undo', [$sources[0]->id, $sources[1]->id]);
    $this->get('/sources')->assertSee('c.txt.wav')->assertDontSee('a.wav');
    $this->get('/order')->assertRedirect();
    $this->followingRedirects()->get('/order')->assertOk()->assertDontSee('a.wav');
    $this->post('/sources/back', ['sources' => $sources[0]->id.','.$sources[1]->id]);
    expect(Source::query()->count())->toBe(3);
    // They are on the draft again, as they were.
    $this->followingRedirects()->get('/order')->assertSee('a.wav');
    $this->post('/sources/many', ['do' => 'remove-shown', 'find' => 'c.txt'])->assertSessionHas('said', 'One was taken off the list.');
    // One that is taken from its shelf again is the one of before.
    $this->post('/shelves/Videos', ['paths' => json_encode(['c.txt.wav'])]);
    expect(Source::query()->count())->toBe(3)->and(Source::everyOne()->count())->toBe(3);
    $this->post('/sources/many', ['do' => 'paint'])->assertNotFound();
});

it('counts a file that got its name in the last moment, whatever its process was ended for', function (string $end) {
    [$source] = onShelf($this, 'a.wav');
    $result = Result::ofOrder(careful($this, [$source], 'keep'))->sole();
    $made = Octavox\Core\Make\Result::fromArray($result->plannedAs(), ['path' => $result->path, 'receipt' => $result->receipt, 'took' => 0.1]);
    $path = (string) $result->path;
    // As it is when a worker has ended its child between giving the name and telling of it.
    (new Journal($result->journalPath()))->write(Placing::of($path, $made));
    $result->update(['state' => ResultState::Making, 'path' => null, 'receipt' => null,
        'cancelling' => $end === 'cancelled']);
    match ($end) {
        'paused', 'cancelled' => app(EndResult::class)->stopped($result),
        'died' => app(EndResult::class)->failed($result, ChildDied::ended($source->path, 'signal 9')),
        default => app(EndResult::class)->interrupted($result, Interrupted::now($source->path), isOfItself: true),
    };
    $result->refresh();
    expect($result->state)->toBe(ResultState::Done)->and($result->path)->toBe($path)->and(is_file($result->journalPath()))->toBeFalse()
        ->and(glob(dirname($path).'/*'))->toBe([$path]);
})->with(['paused', 'cancelled', 'died', 'interrupted']);
