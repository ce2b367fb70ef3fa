<?php

declare(strict_types=1);

use App\Orders\Models\Order;
use App\Results\Models\Result;
use App\Results\Queries\ResultWaveform;
use App\Sources\Models\Source;

it('takes, reads, analyses, orders and makes a file whose name is no UTF-8', function () {
    config(['octavox.writable' => 'Videos']);
    $folder = $this->home.'/shelf/day';
    mkdir($folder);
    file_put_contents("$folder/Gat\xE9.wav", $this->wave());
    file_put_contents("$folder/good.wav", $this->wave(4000));
    $page = (string) $this->get('/shelves/Videos?folder=day')->assertOk()->getContent();
    expect(preg_match_all('/name="paths\[\]" value="([^"]+)"/', $page, $found))->toBeGreaterThanOrEqual(2);
    $paths = array_map(html_entity_decode(...), $found[1]);
    $this->post('/shelves/Videos', ['paths' => json_encode($paths, JSON_THROW_ON_ERROR)])->assertRedirect('/sources');
    $source = Source::query()->where('path', "$folder/Gat\xE9.wav")->firstOrFail();
    expect(Source::query()->count())->toBe(2)->and($source->state->value)->toBe('ready', (string) $source->error_says)
        ->and($source->tracks()->sole()->measured())->not->toBeNull();
    $this->get('/sources')->assertOk();
    $this->get("/sources/$source->id")->assertOk();
    $this->getJson('/work')->assertOk();
    $this->post('/orders', ['sources' => Source::query()->pluck('id')->join(','), 'format' => 'flac']);
    $order = Order::query()->latest('id')->firstOrFail();
    $this->patch("/orders/$order->id", ['place' => 'beside', 'care' => 'copy'])->assertOk();
    $this->get("/orders/$order->id")->assertOk();
    $this->get("/orders/$order->id/tags")->assertOk();
    $this->post("/orders/$order->id/place");
    $results = Result::query()->get();
    expect($results->map(fn (Result $one): string => $one->state->value.$one->error_says)->all())->toBe(['done', 'done'])
        ->and(app(ResultWaveform::class)->after($results[0]))->not->toBeNull();
    $this->get('/results')->assertOk();
    foreach ($results as $result) {
        $this->get("/results/$result->id/receipt")->assertOk();
        $this->get("/results/$result->id/file")->assertOk();
    }
    $this->post('/results/many', ['do' => 'download', 'order' => $order->id])->assertOk();
});
