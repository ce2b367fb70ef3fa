<?php

declare(strict_types=1);

use App\Api\ApiDescription;
use App\Http\AnsweredRequest;
use App\Orders\Models\Order;
use App\Results\Jobs\MakeResult;
use App\Results\Models\Result;
use App\Settings\Actions\IssueToken;
use App\Settings\Models\AccessToken;
use App\Settings\Values\AccessScope;
use App\Sources\Models\Source;
use App\Upkeep\Tidy;
use Illuminate\Routing\Route as OneRoute;
use Illuminate\Support\Facades\Route;
use Illuminate\Testing\TestResponse;
use Opis\JsonSchema\Validator;
use Tests\TestCase;

/** Asks as a script does, and holds the answer against the description. */
function ask(mixed $test, string $method, string $address, array $body = [], array $headers = [], ?string $token = null): TestResponse
{
    static $of = null, $usual = null;
    if ($of !== $test->home) {
        [$of, $usual] = [$test->home, app(IssueToken::class)->issue('Test', AccessScope::cases())];
    }
    $server = ['HTTP_AUTHORIZATION' => 'Bearer '.($token ?? $usual), 'CONTENT_TYPE' => 'application/json'];
    foreach ($headers as $name => $value) {
        $server['HTTP_'.strtoupper(str_replace('-', '_', $name))] = $value;
    }
    $answer = $test->call($method, '/api/v1'.$address, server: $server, content: $body === [] ? '' : json_encode($body));
    holds($method, $address, $answer);

    return $answer;
}

/** Whether an answer is what the description says. */
function holds(string $method, string $address, TestResponse $answer): void
{
    $document = json_decode(json_encode((new ApiDescription)->document()));
    $path = strtok($address, '?');
    $found = null;
    foreach ($document->paths as $pattern => $operations) {
        if (preg_match('#^'.preg_replace('/\\\\\{[a-z]+\\\\\}/', '[^/]+', preg_quote($pattern, '#')).'$#', $path) === 1) {
            $found = $operations->{strtolower($method)} ?? $found;
        }
    }
    $type = (string) strtok((string) $answer->headers->get('Content-Type'), ';');
    if ($found === null || ! str_contains($type, 'json')) {
        return;
    }
    $said = $found->responses->{(string) $answer->status()} ?? $found->responses->default;
    expect($said->content)->toHaveProperty($type);
    $schema = (object) ['$schema' => 'https://json-schema.org/draft/2020-12/schema', '$ref' => $said->content->$type->schema->{'$ref'},
        'components' => $document->components];
    $result = (new Validator)->validate(json_decode($answer->getContent()), $schema);
    expect($result->isValid())->toBeTrue($method.' '.$address.': '.json_encode($result->error()?->keyword()).' '
        .json_encode($result->error()?->data()->fullPath()).' '.$answer->getContent());
}

it('describes every address that there is, and no other', function () {
    $routes = collect(Route::getRoutes()->getRoutes())->filter(fn (OneRoute $route): bool => str_starts_with($route->uri(), 'api/v1'))
        ->flatMap(function (OneRoute $route): array {
            $path = substr('/'.$route->uri(), strlen('/api/v1')) ?: '/';
            $methods = $route->methods() === ['GET', 'HEAD'] ? ['GET'] : $route->methods();
            $paths = str_contains($path, '{kind}s') ? [str_replace('{kind}', 'destination', $path), str_replace('{kind}', 'recipe', $path)]
                : [$path];

            return array_merge(...array_map(fn (string $method): array => array_map(fn (string $path): string => strtolower($method).' '.$path,
                $paths), $methods));
        })->sort()->values()->all();
    $described = array_map(fn ($one): string => $one->method.' '.$one->path, (new ApiDescription)->operations());
    sort($described);
    expect($described)->toBe($routes);
    // What a token must allow is what the route asks for.
    foreach (Route::getRoutes()->getRoutes() as $route) {
        foreach (str_starts_with($route->uri(), 'api/v1') ? (new ApiDescription)->operations() : [] as $one) {
            $path = str_replace(['destinations', 'recipes'], '{kind}s', $one->path);
            if (in_array('/'.$route->uri(), ['/api/v1'.$path, '/api/v1'.$one->path], true) && in_array(strtoupper($one->method), $route
                ->methods(), true)
                && ! ($one->method === 'get' && in_array('HEAD', $route->methods(), true) && $route->methods() === ['HEAD'])) {
                $holds = collect($route->gatherMiddleware())->first(fn ($name) => str_starts_with((string) $name, 'token:'));
                expect($holds)->toBe($one->scope === null ? null : 'token:'.$one->scope->value, $one->path);
            }
        }
    }
    $this->get('/api/v1/openapi.json')->assertOk()->assertJsonPath('openapi', '3.1.0');
    $this->get('/api/v1')->assertOk();
});

it('lets in only who shows a token that allows it', function () {
    $this->get('/api/v1/sources')->assertUnauthorized()->assertHeader('Content-Type', 'application/problem+json')
        ->assertHeader('WWW-Authenticate');
    $reader = app(IssueToken::class)->issue('Reader', [AccessScope::Read]);
    expect(AccessToken::query()->latest('id')->first()->getAttributes())->not->toContain($reader);
    ask($this, 'GET', '/sources', token: $reader)->assertOk();
    ask($this, 'POST', '/orders', ['sources' => [1]], token: $reader)->assertForbidden()->assertJsonPath('needs', 'order');
    ask($this, 'GET', '/sources', token: $reader.'x')->assertUnauthorized();
    // Neither a page of somebody else's nor another name of this machine.
    ask($this, 'POST', '/orders', ['sources' => [1]], ['Origin' => 'http://elsewhere.example'])->assertForbidden();
    AccessToken::query()->delete();
    ask($this, 'GET', '/sources', token: $reader)->assertUnauthorized();
});

it('does a whole job', function () {
    $bytes = TestCase::wave(48_000);
    $created = ask($this, 'POST', '/uploads', headers: ['Tus-Resumable' => '1.0.0', 'Upload-Length' => (string) strlen($bytes),
        'Upload-Metadata' => 'filename '.base64_encode('Lift hall.wav')])->assertCreated();
    $upload = parse_url((string) $created->headers->get('Location'), PHP_URL_PATH);
    expect($upload)->toStartWith('/api/v1/uploads/');
    ask($this, 'GET', substr($upload, strlen('/api/v1')))->assertJsonPath('received', 0);
    ask($this, 'HEAD', substr($upload, strlen('/api/v1')), headers: ['Tus-Resumable' => '1.0.0'])->assertHeader('Upload-Offset', '0');
    $done = $this->call('PATCH', $upload, server: ['HTTP_AUTHORIZATION' => 'Bearer '.app(IssueToken::class)->issue('x',
        [AccessScope::Bring]),
        'HTTP_TUS_RESUMABLE' => '1.0.0', 'HTTP_UPLOAD_OFFSET' => '0', 'CONTENT_TYPE' => 'application/offset+octet-stream'],
        content: $bytes);
    $source = (int) $done->assertNoContent()->headers->get('Octavox-Source');
    ask($this, 'GET', '/sources/'.$source)->assertJsonPath('state', 'ready')->assertJsonPath('tracks.0.rate', 48000);
    ask($this, 'GET', "/sources/$source/reading")->assertJsonPath('container', 'wav');
    ask($this, 'GET', "/sources/$source/analyses")->assertJsonPath('items.0.state', 'done');
    expect(ask($this, 'GET', "/sources/$source/file")->streamedContent())->toBe($bytes);
    $name = ask($this, 'GET', '/destinations')->json('items.0.name');
    ask($this, 'GET', "/destinations/$name/fits?sources=$source")->assertJsonPath('items.0.source', $source);
    $wish = ['sources' => [$source], 'spec' => ['container' => 'flac'], 'title' => 'Hall'];
    ask($this, 'POST', '/plans', $wish)->assertJsonPath('lines.0.state', 'planned')->assertJsonPath('lines.0.plans.0.container', 'flac');
    expect(Order::query()->count())->toBe(0);
    $order = ask($this, 'POST', '/orders', $wish, ['Idempotency-Key' => 'one'])->assertCreated()->json('id');
    ask($this, 'GET', "/orders/$order")->assertJsonPath('results.done', 1);
    $result = ask($this, 'GET', "/orders/$order/results")->json('items.0.id');
    ask($this, 'GET', "/results/$result")->assertJsonPath('state', 'done')->assertJsonPath('there', true);
    expect(substr(ask($this, 'GET', "/results/$result/file")->streamedContent(), 0, 4))->toBe('fLaC');
    ask($this, 'DELETE', "/results/$result")->assertJsonPath('binned', true);
    ask($this, 'GET', "/results/$result/file")->assertNotFound()->assertJsonPath('code', 'not-there');
    ask($this, 'POST', "/results/$result/restore")->assertJsonPath('there', true);
    ask($this, 'POST', "/results/$result/restore")->assertConflict();
    ask($this, 'DELETE', "/sources/$source")->assertNoContent();
    ask($this, 'GET', "/sources/$source")->assertNotFound()->assertJsonPath('code', 'nothing-there');
});

it('does nothing twice for one idempotency key', function () {
    $source = $this->bring('a.wav', TestCase::wave())->id;
    $wish = ['sources' => [$source], 'spec' => ['container' => 'mp3']];
    $first = ask($this, 'POST', '/orders', $wish, ['Idempotency-Key' => 'k']);
    $again = ask($this, 'POST', '/orders', $wish, ['Idempotency-Key' => 'k'])->assertCreated()->assertHeader('Idempotent-Replayed', 'true');
    expect($again->getContent())->toBe($first->getContent())->and($again->headers->get('Location'))->toBe($first->headers->get('Location'))
        ->and(Order::query()->count())->toBe(1)->and(Result::query()->count())->toBe(1);
    ask($this, 'POST', '/orders', ['spec' => ['container' => 'flac']] + $wish, ['Idempotency-Key' => 'k'])->assertUnprocessable()
        ->assertJsonPath('code', 'key-of-another');
    ask($this, 'POST', '/orders', $wish, ['Idempotency-Key' => 'k2'])->assertCreated();
    expect(Order::query()->count())->toBe(2);
    // Whoever died after it was ordered and before that was written down orders nothing a second time.
    AnsweredRequest::query()->delete();
    ask($this, 'POST', '/orders', $wish, ['Idempotency-Key' => 'k'])->assertCreated()->assertJsonPath('id', $first->json('id'));
    expect(Order::query()->count())->toBe(2);
    ask($this, 'POST', '/orders', $wish, ['Idempotency-Key' => str_repeat('k', 256)])->assertBadRequest();
    // Two days later the key is as good as new.
    $this->travel(49)->hours();
    app(Tidy::class)->tidy();
    ask($this, 'POST', '/orders', $wish, ['Idempotency-Key' => 'k'])->assertCreated();
    expect(Order::query()->count())->toBe(3);
});

it('refuses with a problem that names what is wrong', function (array $wish, string $pointer) {
    $this->bring('a.wav', TestCase::wave());
    foreach (['/orders', '/plans'] as $address) {
        $answer = ask($this, 'POST', $address, $wish)->assertUnprocessable();
        expect($answer->json('pointer'))->toBe($pointer)->and($answer->json('detail'))->not->toBe('')
            ->and(Order::query()->count())->toBe(0);
    }
})->with([
    'no sources' => [['spec' => ['container' => 'wav']], '/sources'],
    'an unknown source' => [['sources' => [99], 'spec' => ['container' => 'wav']], '/sources'],
    'a source that is a text' => [['sources' => ['1'], 'spec' => ['container' => 'wav']], '/sources'],
    'nothing said' => [['sources' => [1]], '/destination'],
    'both' => [['sources' => [1], 'destination' => 'web-page', 'recipe' => 'put-away'], '/destination'],
    'a strange field' => [['sources' => [1], 'spec' => [], 'colour' => 'red'], '/colour'],
    'a broken spec' => [['sources' => [1], 'spec' => ['container' => 7]], '/spec'],
    'a broken line' => [['sources' => [1], 'spec' => ['container' => 'wav'], 'lines' => [['source' => 1, 'spec' => ['bits' => 1]]]],
        '/lines/0/spec'],
    'a line of another' => [['sources' => [1], 'spec' => ['container' => 'wav'], 'lines' => [['source' => 2, 'spec' => []]]], '/lines'],
    'a strange end' => [['sources' => [1], 'spec' => ['container' => 'wav'], 'on_failure' => 'weep'], '/on_failure'],
    'a title that is none' => [['sources' => [1], 'spec' => ['container' => 'wav'], 'title' => []], '/title'],
]);

it('says no to what is no document, has no name, or is asked in the wrong way', function () {
    $source = $this->bring('a.wav', TestCase::wave())->id;
    $token = app(IssueToken::class)->issue('x', AccessScope::cases());
    $this->call('POST', '/api/v1/orders', server: ['HTTP_AUTHORIZATION' => "Bearer $token"], content: '{"sources": [1')->assertBadRequest()
        ->assertJsonPath('code', 'no-document');
    ask($this, 'POST', '/orders', ['sources' => [$source], 'destination' => 'nowhere'])->assertUnprocessable();
    ask($this, 'PUT', '/orders/1', ['x' => 1])->assertStatus(405)->assertJsonPath('status', 405);
    ask($this, 'GET', '/nothing')->assertNotFound()->assertJsonPath('status', 404);
    ask($this, 'GET', '/sources/999/reading')->assertNotFound();
    ask($this, 'GET', '/results?state=odd')->assertBadRequest();
    ask($this, 'GET', '/shelves/Nowhere')->assertNotFound();
    ask($this, 'POST', '/sources', ['shelf' => 'Videos', 'paths' => ['../../etc/passwd']])->assertNotFound()
        ->assertJsonPath('code', 'outside-shelf');
    $broken = $this->bring('b.wav', 'no sound at all')->id;
    ask($this, 'GET', "/sources/$broken/reading")->assertUnprocessable();
    ask($this, 'POST', '/orders', ['sources' => [$broken], 'spec' => ['container' => 'wav']])->assertUnprocessable()
        ->assertJsonPath('code', 'nothing-made')->assertJsonPath('lines.0.state', 'refused');
    expect(Order::query()->count())->toBe(0);
});

it('pages through long lists, newest first', function () {
    foreach (range(1, 5) as $number) {
        $this->bring("$number.wav", TestCase::wave(200 + $number));
    }
    $first = ask($this, 'GET', '/sources?limit=2');
    expect(array_column($first->json('items'), 'name'))->toBe(['5.wav', '4.wav'])
        ->and($first->headers->get('Link'))->toContain('rel="next"');
    $names = [];
    for ($next = '/api/v1/sources?limit=2'; $next !== null; $next = $page->json('next')) {
        $page = ask($this, 'GET', substr($next, strpos($next, '/api/v1') + 7));
        array_push($names, ...array_column($page->json('items'), 'name'));
    }
    expect($names)->toBe(['5.wav', '4.wav', '3.wav', '2.wav', '1.wav']);
});

it('takes whole folders of a shelf, keeps recipes and destinations, holds orders', function () {
    mkdir($this->home.'/shelf/day/two', recursive: true);
    file_put_contents($this->home.'/shelf/day/1.wav', TestCase::wave(300));
    file_put_contents($this->home.'/shelf/day/two/2.wav', TestCase::wave(310));
    file_put_contents($this->home.'/shelf/day/notes.txt', 'none');
    ask($this, 'GET', '/shelves')->assertJsonPath('items.0.name', 'Videos');
    ask($this, 'GET', '/shelves/Videos?folder=day')->assertJsonPath('items.0.folder', true);
    $taken = ask($this, 'POST', '/sources', ['shelf' => 'Videos', 'paths' => ['day']])->assertCreated();
    expect(collect($taken->json('items'))->pluck('name')->sort()->values()->all())->toBe(['1.wav', '2.wav']);
    $recipe = ['version' => 1, 'name' => 'mine', 'title' => 'Mine', 'note' => 'For me', 'spec' => ['version' => 1, 'container' => 'flac']];
    $kept = ask($this, 'POST', '/recipes', $recipe)->assertCreated();
    $name = $kept->json('name');
    ask($this, 'PUT', "/recipes/$name", ['title' => 'Yours'] + $recipe)->assertJsonPath('title', 'Yours');
    ask($this, 'POST', '/recipes', ['name' => 'x'])->assertUnprocessable();
    ask($this, 'PUT', '/recipes/put-away', $recipe)->assertForbidden();
    Illuminate\Support\Facades\Queue::fake([MakeResult::class]);
    $order = ask($this, 'POST', '/orders', ['sources' => Source::query()->pluck('id')->all(), 'recipe' => $name,
        'lines' => [['source' => Source::query()->max('id'), 'spec' => ['container' => 'wav']]]])->json('id');
    expect(Result::query()->orderBy('id')->get()->map(fn (Result $one) => $one->plannedAs()->target->container)->all())->toContain('flac',
        'wav');
    ask($this, 'PATCH', "/orders/$order", ['held' => true, 'turn' => 'first'])->assertJsonPath('held', true)->assertJsonPath('priority', 1);
    ask($this, 'PATCH', "/orders/$order", ['turn' => 'sideways'])->assertUnprocessable();
    $result = Result::query()->firstOrFail()->id;
    ask($this, 'PATCH', "/results/$result", ['held' => true])->assertJsonPath('held', true);
    ask($this, 'POST', "/results/$result/cancel")->assertJsonPath('state', 'cancelled');
    ask($this, 'POST', "/results/$result/retry")->assertJsonPath('state', 'waiting');
    ask($this, 'POST', "/orders/$order/cancel")->assertJsonPath('results.open', 0);
    ask($this, 'POST', "/orders/$order/retry")->assertJsonPath('results.open', 2);
    ask($this, 'DELETE', "/recipes/$name")->assertNoContent();
    ask($this, 'GET', '/results?state=waiting&order='.$order)->assertJsonCount(2, 'items');
    ask($this, 'GET', '/orders')->assertJsonPath('items.0.id', $order);
});

it('tells what happens as events, and what was missed', function () {
    $source = $this->bring('a.wav', TestCase::wave())->id;
    ask($this, 'POST', '/orders', ['sources' => [$source], 'spec' => ['container' => 'flac']]);
    $events = ask($this, 'GET', '/events?since=1&seconds=1')->assertHeader('Content-Type', 'text/event-stream; charset=UTF-8')
        ->streamedContent();
    preg_match_all('/^event: (\w+)\nid: (\d+)\ndata: (.+)$/m', $events, $told, PREG_SET_ORDER);
    expect(array_column($told, 1))->toBe(['result', 'order', 'source'])->and(json_decode($told[0][3], true)['state'])->toBe('done');
    $this->travel(1)->minutes();
    expect(ask($this, 'GET', '/events?seconds=1', headers: ['Last-Event-ID' => (string) now()->getTimestamp()])->streamedContent())
        ->not->toContain('event:');
});

it('makes tokens on the page of settings, shows each once, and takes it back', function () {
    $this->post('/settings/tokens', ['title' => 'Nightly', 'read' => '1', 'order' => '1'])->assertSessionHas('token');
    $token = session('token');
    expect($token)->toStartWith('octavox_');
    $this->get('/settings')->assertSee($token)->assertSee('Nightly');
    $this->get('/settings')->assertDontSee($token)->assertSee('plan and order');
    ask($this, 'GET', '/results', token: $token)->assertOk();
    $this->post('/settings/tokens', ['title' => ''])->assertSessionMissing('token');
    $this->delete('/settings/tokens/'.AccessToken::query()->where('title', 'Nightly')->value('id'));
    ask($this, 'GET', '/results', token: $token)->assertUnauthorized();
    $this->get('/interface')->assertOk()->assertSee('Idempotency-Key')->assertSee('/orders/{order}/results');
});

it('refuses a place, a picture and a name that lead elsewhere, and logs no refusal as a fault', function () {
    $source = $this->bring('one.wav', $this->wave(4800));
    $refused = function (array $body) use ($source): array {
        $answer = ask($this, 'POST', '/orders', ['sources' => [$source->id]] + $body)->assertStatus(422);

        return [$answer->json('pointer'), $answer->json('detail')];
    };
    foreach ([
        '/spec/cover' => ['spec' => ['container' => 'flac', 'cover' => '/etc/passwd']],
        '/spec/place' => ['spec' => ['container' => 'flac', 'place' => '/etc']],
        '/place' => ['spec' => ['container' => 'flac'], 'place' => '../../etc'],
        '/spec/name' => ['spec' => ['container' => 'flac', 'name' => '../../{stem}']],
        '/lines/0/spec/place' => ['spec' => ['container' => 'flac'], 'lines' => [['source' => $source->id, 'spec' => ['place' => 'beside']]]],
        '/lines/0/spec/cover' => ['spec' => ['container' => 'flac'], 'lines' => [['source' => $source->id, 'spec' => ['cover' => 'x.png']]]],
    ] as $pointer => $body) {
        expect($refused($body)[0])->toBe($pointer);
    }
    expect($refused(['spec' => ['container' => 'flac'], 'place' => 'shelf:nowhere'])[1])->toContain('There is no shelf')
        ->and(Order::query()->count())->toBe(0);
    ask($this, 'POST', '/orders', ['sources' => [$source->id], 'spec' => ['container' => 'flac', 'place' => '']])->assertStatus(201);
    expect(implode('', array_map(file_get_contents(...), glob($this->home.'/octavox*.log') ?: [])))->not->toContain('ERROR');
});
