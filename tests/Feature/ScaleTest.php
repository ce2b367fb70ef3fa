<?php

declare(strict_types=1);

use App\Orders\Models\Order;
use App\Results\Models\Result;
use App\Results\Values\ResultState;
use App\Settings\Actions\IssueToken;
use App\Settings\Values\AccessScope;
use App\Sources\Models\Source;
use App\Upkeep\Recover;
use App\Upkeep\Tidy;
use Illuminate\Database\Events\QueryExecuted;
use Illuminate\Support\Facades\DB;

/** A home in which there is something of everything. */
function filledHome(mixed $test): Order
{
    $order = $test->draft(['format' => 'flac'], 'a.wav', 'b.wav', 'c.wav');
    $test->post("/orders/$order->id/place");
    Result::query()->whereKey(1)->update(['state' => ResultState::Failed, 'error_says' => 'The drive went away.']);
    $test->post('/results/many', ['do' => 'bin', 'results' => '2']);
    $waiting = $test->draft(['format' => 'wav'], 'd.wav', 'e.wav');
    $test->post("/orders/$waiting->id/place");
    Result::query()->where('order_id', $waiting->id)->update(['state' => ResultState::Waiting]);
    $test->delete('/sources/'.$test->bring('f.wav', $test->wave(4000))->id);
    $test->post('/orders', ['sources' => (string) Result::ofOrder($order)->firstOrFail()->source_id, 'format' => 'wav']);

    return $order;
}

/** @return list<string> tables that a query goes through from one end to the other, as SQLite says it */
function scans(QueryExecuted $query): array
{
    if (preg_match('/^\s*(select|update|delete|insert)\b/i', $query->sql) !== 1) {
        return [];
    }
    $scanned = [];
    foreach (DB::connection()->getPdo()->query('explain query plan '.$query->connection->getQueryGrammar()
        ->substituteBindingsIntoRawSql($query->sql, $query->connection->prepareBindings($query->bindings)))->fetchAll() as $step) {
        // Going along an index that holds no more than what is wanted, or is left after a page of rows, is no scan.
        $isAlong = preg_match('/USING (COVERING )?INDEX (results_(binned|in_bin|held|waiting_for)|sources_(removed|by_\w+)|tracks_unheard)\b/', $step['detail']) === 1;
        // Nearly all rows have nothing there.
        $isAll = preg_match('/^SEARCH sources USING INDEX \w+ \((removed_at|belongs_to|group_id|binned)=\?\)$/', $step['detail'], $by) === 1
            && str_contains($query->sql, "\"$by[1]\" is null");
        if ($isAll || preg_match('/^SCAN (results|sources|tracks|arrivals)\b/', $step['detail']) === 1 && ! $isAlong) {
            $scanned[] = $step['detail'].': '.$query->sql;
        }
    }

    return $scanned;
}

it('goes through no table of what grows with the months, on any page, poll or call', function () {
    $order = filledHome($this);
    $draft = Order::query()->where('state', 'draft')->firstOrFail();
    $headers = ['Authorization' => 'Bearer '.app(IssueToken::class)->issue('test', AccessScope::cases())];
    $scanned = $asked = [];
    DB::listen(function (QueryExecuted $query) use (&$asked): void {
        $asked[] = $query;
    });
    $pages = ['/work', '/sources', '/sources?by=name', '/sources?by=length', '/sources?by=size', '/sources?by=container',
        '/sources?by=folder', '/sources?find=a.wav', '/sources?find=a', '/sources?show=findings',
        '/sources?show=codec:pcm', '/sources?show=layout:stereo', '/sources?show=picture', '/sources?for=radio-desk', '/sources/1',
        '/results', "/results?order=$order->id", '/results?find=.flac', '/results?find=a', '/results?show=done', '/results?show=open',
        '/results?show=failed', '/results?show=bin', '/results?show=failed&find=wav', '/results?in='.rawurlencode($this
            ->home.'/results/0001'), '/results/changes?since='.(time() - 60), '/results/3/receipt', '/bin', '/settings',
        '/orders', "/orders/$draft->id", "/orders/$draft->id/tags", '/recipes', '/destinations', '/standing', '/outside',
        '/outside/recorders', '/outside/players', '/outside/page?results=3', '/shelves', '/shelves/Videos', '/interface'];
    foreach ($pages as $page) {
        expect($this->get($page)->getStatusCode())->toBeIn([200, 302], $page);
    }
    foreach (['/sources', '/sources?state=ready', '/sources/1', '/results', "/results?order=$order->id", '/results?state=done',
        '/results/3', '/orders', "/orders/$order->id", "/orders/$order->id/results", '/destinations/radio-desk/fits?sources=1'] as $call) {
        $this->getJson('/api/v1'.$call, $headers)->assertOk();
    }
    app(Recover::class)->run();
    app(Tidy::class)->tidy();
    app(App\Results\Actions\ClaimResult::class)->claim('token');
    foreach ($asked as $query) {
        array_push($scanned, ...scans($query));
    }
    expect(count($asked))->toBeGreaterThan(200)->and(array_values(array_unique($scanned)))->toBe([]);
});

it('would find such a query', function () {
    $asked = [];
    DB::listen(function (QueryExecuted $query) use (&$asked): void {
        $asked[] = $query;
    });
    Result::query()->where('name', 'like', '%x%')->get();
    Source::query()->where('note', 'x')->count();
    expect(array_merge(...array_map(scans(...), $asked)))->toHaveCount(2);
});

it('keeps how many results an order has in each state, whoever changes them', function () {
    $counted = fn (): array => DB::table('results')
        ->selectRaw('order_id, state, count(*) as files, round(sum(samples * 1.0 / max(rate, 1)), 6) as seconds')
        ->groupBy('order_id', 'state')->orderBy('order_id')->orderBy('state')->get()->toArray();
    $kept = fn (): array => DB::table('order_counts')->where('files', '>', 0)
        ->selectRaw('order_id, state, files, round(seconds, 6) as seconds')
        ->orderBy('order_id')->orderBy('state')->get()->toArray();
    $order = filledHome($this);
    expect($kept())->toEqual($counted())->and($kept())->not->toBe([]);
    DB::table('results')->whereIn('id', [1, 3])->update(['state' => 'cancelled', 'samples' => 777]);
    Result::query()->findOrFail(2)->delete();
    DB::table('results')->where('id', 4)->update(['order_id' => $order->id]);
    expect($kept())->toEqual($counted());
    $order->delete();
    expect($kept())->toEqual($counted())->and(DB::table('order_counts')->where('order_id', $order->id)->count())->toBe(0);
});

it('finds names by any part of them, also after they were changed', function () {
    filledHome($this);
    Result::query()->whereKey(3)->update(['name' => 'Gate "three" 100%_ÄÖ.flac']);
    foreach (['three', '"thr', '100%_', 'gate', 'äö.', 'e" 1'] as $part) {
        $this->get('/results?find='.rawurlencode($part))->assertOk()->assertSee('result-3"', false);
    }
    $this->get('/results?find=c.flac')->assertOk()->assertDontSee('result-3"', false);
    foreach (['" OR "', 'name:gate', 'gate*', '100%%', "'; drop table results; --", str_repeat('x', 5000)] as $strange) {
        $this->get('/results?find='.rawurlencode($strange))->assertOk()->assertDontSee('result-3"', false);
        $this->get('/sources?find='.rawurlencode($strange))->assertOk();
    }
    $source = Source::query()->firstOrFail();
    $this->patch("/sources/$source->id", ['name' => 'Keeper at the gate', 'note' => 'Wind from the west']);
    foreach (['keeper', 'from the w', $source->name] as $part) {
        $this->get('/sources?find='.rawurlencode($part))->assertOk()->assertSee('data-source="'.$source->id.'"', false)
            ->assertSee('Take this one off the list');
    }
    $this->delete("/sources/$source->id");
    $this->get('/sources?find=keeper')->assertOk()->assertDontSee('data-source', false);
    $this->post('/sources/back', ['sources' => (string) $source->id]);
    $this->get('/sources?find=keeper')->assertOk()->assertSee('data-source', false);
});

it('answers whoever asks again in a word where nothing is new', function () {
    filledHome($this);
    foreach (['/work' => fn () => Result::query()->whereKey(4)->update(['phase' => 'verifying']),
        '/sources?find=.wav' => fn () => Source::query()->whereKey(1)->update(['note' => 'Rain'])] as $address => $change) {
        $first = $this->get($address)->assertOk();
        $tag = (string) $first->headers->get('ETag');
        // The page of one visitor is not that of another.
        $this->withUnencryptedCookie(config('session.cookie'), (string) $first->getCookie(config('session.cookie'), false)?->getValue());
        $queries = 0;
        DB::listen(function () use (&$queries): void {
            $queries++;
        });
        $this->get($address, ['If-None-Match' => $tag])->assertStatus(304)->assertContent('');
        expect($queries)->toBeLessThan(5);
        $change();
        $next = (string) $this->get($address, ['If-None-Match' => $tag])->assertOk()->headers->get('ETag');
        expect($next)->not->toBe($tag);
        $this->get($address, ['If-None-Match' => $next])->assertStatus(304);
        $this->travel(2)->minutes();
        $this->get($address, ['If-None-Match' => $next])->assertOk();
        $this->travelBack();
    }
    // What is said once is said to whoever comes next.
    $tag = (string) $this->get('/sources')->headers->get('ETag');
    $this->withSession(['said' => 'Taken off the list.'])->get('/sources', ['If-None-Match' => $tag])->assertOk()
        ->assertSee('Taken off the list.');
    $page = (string) $this->get('/results')->getContent();
    expect(preg_match('/hx-get="([^"]+changes[^"]+)"/', $page, $found))->toBe(1);
    $poll = html_entity_decode($found[1]);
    $this->get($poll)->assertNoContent();
    Result::query()->whereKey(4)->update(['phase' => 'making']);
    $this->get($poll)->assertOk();
});

it('goes through long lists part by part, forwards and backwards, each row once', function (string $by) {
    $rows = [];
    for ($number = 1; $number <= 150; $number++) {
        $rows[] = ['name' => sprintf('Take %03d.wav', $number * 7 % 40), 'folder' => 'Day '.($number % 3), 'path' => "/x/$number", 'origin' => 'shelf', 'state' => 'unreadable',
            'bytes' => $number % 5, 'seconds' => $number % 4 === 0 ? null : $number % 11 / 3, 'container' => $number % 6 === 0 ? null
                : 'wav', 'created_at' => now()->addSeconds(intdiv($number, 9))];
    }
    Source::query()->insert($rows);
    $listed = fn (string $html): array => preg_match_all('/data-source="(\d+)"/', $html, $found) > 0 ? $found[1] : [];
    $link = fn (string $html, string $rel): ?string => preg_match('/href="([^"]+)" rel="'.$rel.'"/', $html, $found) === 1 ? html_entity_decode($found[1]) : null;
    $address = "/sources?by=$by";
    $pages = [];
    while ($address !== null) {
        $html = (string) $this->get($address)->assertOk()->getContent();
        $pages[] = $listed($html);
        $last = $html;
        $address = $link($html, 'next');
    }
    expect(array_map(count(...), $pages))->toBe([60, 60, 30])->and(count(array_unique(array_merge(...$pages))))->toBe(150);
    $back = [$pages[2]];
    while (($address = $link($last, 'prev')) !== null) {
        $last = (string) $this->get($address)->assertOk()->getContent();
        array_unshift($back, $listed($last));
    }
    expect($back)->toBe($pages);
    foreach (['x', 'W10', 'bnVsbA', 'WzEsMl0', 'WyJhIiwiYiJd', 'WzFlMzA5LDFd', str_repeat('A', 9000)] as $strange) {
        $this->get("/sources?by=$by&after=$strange")->assertOk();
        $this->get("/results?before=$strange")->assertOk();
    }
})->with(['new', 'name', 'length', 'size', 'container', 'folder']);

it('answers anew whoever has another draft in hand', function () {
    $order = $this->draft(['format' => 'flac'], 'a.wav');
    $first = $this->get('/sources')->assertOk();
    $this->withUnencryptedCookie(config('session.cookie'), (string) $first->getCookie(config('session.cookie'), false)?->getValue());
    $tag = fn (): string => (string) $this->get('/sources')->assertOk()->headers->get('ETag');
    $this->post('/ticks/order', ['order' => $order->id]);
    $held = $tag();
    $this->post('/ticks/order', ['order' => '']);
    $this->get('/sources', ['If-None-Match' => $held])->assertOk();
    expect($tag())->not->toBe($held);
});
