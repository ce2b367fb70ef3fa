<?php

declare(strict_types=1);

use App\Files\Pictures;
use App\Orders\Models\Order;
use App\Results\Models\Result;
use Illuminate\Http\UploadedFile;
use Octavox\Core\Reading\Opener;

/** A picture of a size, as somebody brings it in. */
function drawn(int $width, int $height, string $type = 'png'): UploadedFile
{
    return UploadedFile::fake()->image("cover.$type", $width, $height);
}

function coverOf(Result $result): ?Octavox\Core\Tag\Cover
{
    return Opener::open((string) $result->path)->media->tags()->cover;
}

it('gives all results a cover that is made smaller, or one line another, or none', function () {
    $order = $this->draft(['format' => 'mp3'], 'a.wav', 'b.wav');
    $this->post("/orders/$order->id/cover", ['picture' => drawn(2000, 1000), 'side' => 600])->assertRedirect()
        ->assertSessionHas('said', 'The results get this cover. The sources stay as they are.');
    $line = $order->lines()->orderBy('id')->firstOrFail();
    $this->get("/orders/$order->id/lines/$line->id")->assertOk()->assertSee('/pictures/')->assertSee('Cover of the result');
    $this->get("/orders/$order->id/tags")->assertOk()->assertSee('cover-small', false);
    $this->post("/orders/$order->id/cover", ['line' => $line->id, 'what' => 'none']);
    $this->get("/orders/$order->id")->assertSee('no cover');
    $this->post("/orders/$order->id/place")->assertRedirect();
    [$first, $second] = Result::query()->orderBy('id')->get()->all();
    $size = getimagesizefromstring(coverOf($second)->bytes ?? '');
    expect(coverOf($first))->toBeNull()->and([$size[0] ?? 0, $size[1] ?? 0, coverOf($second)?->type])->toBe([600, 300, 'image/jpeg']);
});

it('gives the marked lines a cover as it is, and takes it back', function () {
    $order = $this->draft(['format' => 'flac'], 'a.wav', 'b.wav');
    $line = $order->lines()->orderBy('id')->firstOrFail();
    $line->update(['marked' => true]);
    $picture = drawn(80, 60);
    $bytes = (string) file_get_contents($picture->getPathname());
    $this->post("/orders/$order->id/cover", ['picture' => $picture, 'side' => 0])->assertRedirect();
    $path = (string) $line->refresh()->changes()->cover;
    expect(file_get_contents($path))->toBe($bytes)->and(Pictures::name($path))->toEndWith('.png')
        ->and($order->lines[1]->changes()->cover)->toBeNull();
    $this->get('/pictures/'.Pictures::name($path))->assertOk()->assertHeader('Content-Type', 'image/png')
        ->assertHeader('X-Content-Type-Options', 'nosniff');
    // What is changed besides leaves it.
    $this->patch("/orders/$order->id/lines/$line->id", ['scope' => 'line', 'rate' => '44100']);
    expect($line->refresh()->changes()->cover)->toBe($path);
    $this->post("/orders/$order->id/cover", ['line' => $line->id, 'what' => 'own']);
    expect($line->refresh()->changes()->cover)->toBeNull();
});

it('refuses what is no picture, and names no other file', function () {
    $order = $this->draft(['format' => 'mp3'], 'a.wav');
    $said = fn (string $part) => fn (string $said): bool => str_contains($said, $part);
    $text = UploadedFile::fake()->createWithContent('cover.jpg', 'no picture at all');
    $this->post("/orders/$order->id/cover", ['picture' => $text, 'side' => 600])->assertSessionHas('said', $said('no picture that can be'));
    $whole = drawn(50, 50);
    $cut = UploadedFile::fake()->createWithContent('cut.png', substr((string) file_get_contents($whole->getPathname()), 0, 30));
    $this->post("/orders/$order->id/cover", ['picture' => $cut, 'side' => 600])->assertSessionHas('said', $said('no picture that can be'));
    // A header that announces more pixels than there is memory for.
    $bomb = UploadedFile::fake()->createWithContent('bomb.png', "\x89PNG\r\n\x1A\n\0\0\0\rIHDR".pack('N2', 60_000,
        60_000)."\x08\2\0\0\0xxxx");
    $this->post("/orders/$order->id/cover", ['picture' => $bomb, 'side' => 600])->assertSessionHas('said', $said('no picture that can be'));
    $this->post("/orders/$order->id/cover", ['side' => 600])->assertSessionHas('said', $said('No picture was chosen'));
    foreach (['../octavox.sqlite', 'x.jpg', str_repeat('a', 64), str_repeat('a', 64).'.jpg'] as $name) {
        $this->get('/pictures/'.rawurlencode($name))->assertNotFound();
    }
    $this->patch("/orders/$order->id", ['cover' => '/etc/passwd'])->assertOk();
    expect($order->refresh()->asked()->cover)->toBeNull()->and(glob(Pictures::folder().'/*'))->toBe([]);
});

it('makes a cover of it that the destination wants, and is accepted then', function () {
    $order = $this->draft([], 'a.wav');
    $this->patch("/orders/$order->id", ['goes' => 'to:podcast-host'])->assertSee('no cover');
    $line = $order->lines()->firstOrFail();
    $this->patch("/orders/$order->id/lines/$line->id", ['scope' => 'line', 'tags' => ['title' => 'Lift', 'artist' => 'Wrenfield']]);
    $this->post("/orders/$order->id/cover", ['picture' => drawn(700, 700), 'side' => 600]);
    $this->get("/orders/$order->id")->assertDontSee('not accepted');
    $this->post("/orders/$order->id/place")->assertRedirect();
    expect(coverOf(Result::query()->sole())?->type)->toBe('image/jpeg')->and(Order::query()->sole()->isDraft())->toBeFalse();
});

it('writes the fields of Broadcast WAV as they are filled in', function () {
    $order = $this->draft(['format' => 'wav'], 'a.wav');
    $this->patch("/orders/$order->id", ['broadcast' => '1'])->assertSee('Originator');
    $this->patch("/orders/$order->id", ['broadcast_originator' => 'Lift crew', 'broadcast_date' => 'soon'])->assertOk();
    $this->patch("/orders/$order->id", ['broadcast_date' => '2026-05-09'])->assertOk();
    expect($order->refresh()->asked()->broadcast?->toArray())->toBe(['originator' => 'Lift crew', 'date' => '2026-05-09']);
    $this->post("/orders/$order->id/place")->assertRedirect();
    $bytes = (string) file_get_contents((string) Result::query()->sole()->path);
    expect($bytes)->toContain('bext')->toContain('Lift crew')->toContain('2026-05-09');
    $other = $this->draft(['format' => 'wav', 'broadcast' => '1'], 'b.wav');
    $this->patch("/orders/$other->id", ['format' => 'flac']);
    expect($other->refresh()->asked()->broadcast)->toBeNull();
});

it('names results after their tags, and says which tags a format cannot hold', function () {
    $order = $this->draft(['format' => 'au'], 'a.wav', 'b.wav');
    [$first] = $order->lines()->orderBy('id')->get()->all();
    $this->patch("/orders/$order->id/lines/$first->id", ['scope' => 'line', 'tags' => ['title' => 'Gates', 'album' => 'Steam', 'track' => '3']]);
    $this->get("/orders/$order->id/tags")->assertSee('AU has no place for album, track.')->assertSee('is-lost', false);
    $this->post("/orders/$order->id/tags", ['tool' => 'to-name', 'pattern' => '{track:2} - {title|stem}'])
        ->assertSessionHas('said', fn (string $said): bool => str_contains($said, '{track:2} - {title|stem}'));
    $this->get("/orders/$order->id")->assertSee('03 - Gates.au');
    $this->get("/orders/$order->id/lines/$first->id")->assertSee('without album, track: AU has no place for them');
});
