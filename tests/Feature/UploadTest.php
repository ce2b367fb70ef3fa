<?php

declare(strict_types=1);

use App\Sources\Models\Source;
use App\Sources\Models\Upload;
use App\Sources\Values\SourceState;
use Tests\TestCase;

it('tells what it can', function () {
    $this->call('OPTIONS', '/uploads')->assertNoContent()->assertHeader('Tus-Version', '1.0.0')
        ->assertHeader('Tus-Extension', 'creation,termination,expiration');
});

it('takes a file in parts, goes on where it stopped, and reads it', function () {
    $bytes = TestCase::wave();
    $created = $this->call('POST', '/uploads',
        server: $this->headers(['Upload-Length' => (string) strlen($bytes),
            'Upload-Metadata' => 'filename '.base64_encode('Höhe.wav').',path '.base64_encode('Day 1/cam/Höhe.wav')]));
    $place = $created->assertCreated()->headers->get('Location');
    $this->part($place, 0, substr($bytes, 0, 10_000))->assertNoContent()->assertHeader('Upload-Offset', '10000');
    $this->call('HEAD', $place, server: $this->headers([]))->assertOk()->assertHeader('Upload-Offset', '10000')
        ->assertHeader('Upload-Length', (string) strlen($bytes));
    // A part sent again, or from the future, is refused; nothing is written twice.
    $this->part($place, 0, 'again')->assertConflict();
    $this->part($place, 20_000, 'later')->assertConflict();
    $this->part($place, 10_000, substr($bytes, 10_000))->assertNoContent();
    $source = Source::query()->with('tracks')->firstOrFail();
    expect($source->name)->toBe('Höhe.wav')->and($source->folder)->toBe('Day 1/cam')->and($source->state)->toBe(SourceState::Ready)
        ->and($source->tracks[0]->samples)->toBe(9600)->and(file_get_contents($source->path))->toBe($bytes)
        ->and(glob($this->home.'/uploads/*'))->toBe([]);
});

it('refuses what is no upload', function () {
    $this->call('POST', '/uploads')->assertStatus(412);
    $this->call('POST', '/uploads', server: $this->headers(['Upload-Length' => 'many']))->assertStatus(400);
    $this->call('POST', '/uploads', server: $this->headers(['Upload-Length' => '999999999999999']))->assertStatus(413);
    $place = $this->call('POST', '/uploads', server: $this->headers(['Upload-Length' => '4']))->headers->get('Location');
    $this->call('PATCH', $place, server: $this->headers(['Upload-Offset' => '0', 'Content-Type' => 'text/plain']), content: 'abcd')
        ->assertStatus(415);
    $this->part($place, 0, 'abcdefgh')->assertStatus(413);
    expect($this->newest()->received)->toBe(0)->and(filesize($this->newest()->path()))->toBe(0);
    $this->call('HEAD', '/uploads/00000000-0000-0000-0000-000000000000', server: $this->headers([]))->assertNotFound();
});

it('is ended by the one who began it, or by time', function () {
    $place = $this->call('POST', '/uploads', server: $this->headers(['Upload-Length' => '8']))->headers->get('Location');
    $this->part($place, 0, 'abcd')->assertNoContent();
    $path = $this->newest()->path();
    expect(is_file($path))->toBeTrue();
    $this->call('DELETE', $place, server: $this->headers([]))->assertNoContent();
    expect(is_file($path))->toBeFalse()->and(Upload::query()->count())->toBe(0);

    $this->call('POST', '/uploads', server: $this->headers(['Upload-Length' => '8']));
    $path = $this->newest()->path();
    $this->artisan('octavox:tidy')->assertSuccessful();
    expect(is_file($path))->toBeTrue();
    $this->travel(25)->hours();
    $this->artisan('octavox:tidy')->assertSuccessful();
    expect(is_file($path))->toBeFalse()->and(Upload::query()->count())->toBe(0);
});

it('takes names apart that would leave their folder', function () {
    $source = $this->bring('../../evil.wav', TestCase::wave(100), '../../../etc/evil.wav');
    expect($source->name)->toBe('evil.wav')->and($source->folder)->toBe('etc')->and(realpath($source->path))
        ->toStartWith(realpath($this->home.'/sources').'/');
});

it('says in one sentence why a file cannot be used, and harms nothing', function (string $name, string $bytes, string $says) {
    $source = $this->bring($name, $bytes);
    expect($source->state)->toBe(SourceState::Unreadable)->and($source->error_says)->toContain($says);
    $this->get('/sources')->assertOk()->assertSee($says);
    $this->get("/sources/$source->id")->assertOk()->assertSee($says);
    $this->sheet("/order?sources=$source->id")->assertOk()->assertSee($says)->assertSee('Make 0 files');
})->with([
    ['empty.mp4', '', 'The file is empty'],
    ['notes.mp4', "only words\n", 'This is text'],
    ['zeros.mov', str_repeat("\0", 5000), 'nothing but zeros'],
    ['cut.mp4', "\0\0\0\x10ftypisom\0\0\0\0\0\0\xFF\xFFmdatxxxx", 'never finished'],
]);
