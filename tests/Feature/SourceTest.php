<?php

declare(strict_types=1);

use App\Results\Models\Result;
use App\Results\Values\ResultState;
use App\Sources\Models\Source;
use Illuminate\Support\Facades\Queue;
use Octavox\Core\Bytes\MemorySink;
use Octavox\Core\Bytes\Stretch;
use Octavox\Core\Container\Video\PictureSample;
use Octavox\Core\Container\Video\PictureStream;
use Octavox\Core\Container\Video\VideoOutputs;
use Octavox\Core\Container\Video\VideoParts;
use Octavox\Core\Container\Video\VideoSound;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\Chapter;
use Octavox\Core\Tag\Cover;
use Octavox\Core\Tag\TagField;
use Octavox\Core\Tag\Tags;
use Tests\TestCase;

/**
 * Two seconds of a video: pictures that nobody decodes, a first sound in English and a second one in Welsh that begins half a second late.
 */
function video(?Cover $cover = null): string
{
    $form = AudioFormat::pcm(SampleFormat::signed(16), 48_000, Layout::stereo());
    $sounds = [new VideoSound($form, 0, 0, 96_000, 'eng', 'The square', ''),
        new VideoSound($form, 24_000, 0, 72_000, 'cym', 'Commentary', '')];
    $tags = Tags::none()->with(TagField::Title, 'The boat lift <opens>')->with(TagField::Artist, 'Wrenfield Canal Society')
        ->withCover($cover);
    $sink = new MemorySink;
    $writer = VideoOutputs::named('mkv')->writer($sink, new VideoParts(
        new PictureStream(Codec::H264, 320, 192, 25, 25.0, "\x01\x42\xC0\x1E\xFF\xE0\x00"), 0, $sounds, $tags,
        [new Chapter(0.0, 'The band arrives'), new Chapter(1.2, 'The first boat')], 2.0));
    for ($index = 0; $index < 50; $index++) {
        $writer->picture(new PictureSample(Stretch::of(pack('N', 60).str_repeat(chr($index), 60)), $index, $index, 1, $index % 25 === 0));
        $writer->sound(0, new Packet(str_repeat(pack('v2', 300 * $index, 5), 1920), 1920 * $index, 1920));
        $left = min(1920, 72_000 - 1920 * $index);
        if ($left > 0) {
            $writer->sound(1, new Packet(str_repeat(pack('v2', 7, 200 * $index), $left), 1920 * $index, $left));
        }
    }
    $writer->finish();

    return $sink->bytes();
}

/** The smallest picture there is. */
function dot(): Cover
{
    return new Cover('image/png',
        (string) base64_decode('iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg=='));
}

it('shows everything a video says about itself', function () {
    $source = $this->bring('lift.mkv', video(dot()));
    $this->get("/sources/$source->id")->assertOk()
        ->assertSeeInOrder(['Container', 'MKV', 'Tracks', '320 × 192', '25.00/s', 'English', 'The square', '0.500 s',
            'Welsh', 'Commentary'])
        ->assertSeeInOrder(['Chapters', '0:00', 'The band arrives', '0:01', 'The first boat'])
        ->assertSeeInOrder(['Tags', 'Title', 'The boat lift <opens>', 'Wrenfield Canal Society'])
        ->assertDontSee('<opens>', false)->assertDontSee('though the name ends');
    $cover = $this->get("/sources/$source->id/cover")->assertOk()->assertHeader('X-Content-Type-Options', 'nosniff');
    expect($cover->headers->get('Content-Type'))->toBe('image/png')->and($cover->streamedContent())->toBe(dot()->bytes)
        ->and($this->get("/sources/$source->id/media")->assertOk()->headers->get('Content-Type'))->toBe('video/webm');
});

it('fetches the picture of a source that was read before pictures were kept, and reads nothing else anew', function () {
    $source = $this->bring('lift.mkv', video(dot()));
    $before = $source->fresh()->toArray();
    unlink($source->coverPath());
    // Fetched when somebody looks; there at the next look.
    $this->get("/sources/$source->id/cover");
    $cover = $this->get("/sources/$source->id/cover")->assertOk()->assertHeader('Content-Type', 'image/png');
    expect($cover->streamedContent())->toBe(dot()->bytes)->and($source->fresh()->toArray())->toBe($before);
    unlink($source->coverPath());
    unlink($source->path);
    Illuminate\Support\Facades\Cache::flush();
    $this->get("/sources/$source->id/cover")->assertNotFound();
    expect($source->fresh()->isReady())->toBeTrue();
});

it('tells what a file is, whatever its name says, and what has no cover', function () {
    $source = $this->bring('speech.mp3', TestCase::wave());
    $this->get("/sources/$source->id")->assertOk()->assertSee('WAV, though the name ends in .mp3')
        ->assertSee('The file says nothing about itself.');
    $this->get("/sources/$source->id/cover")->assertNotFound();
});

it('says of what cannot be used only why', function () {
    $source = $this->bring('notes.mp4', str_repeat('These are my notes of the opening. ', 40));
    expect($source->fresh()->state->value)->toBe('unreadable');
    $this->get("/sources/$source->id")->assertOk()->assertSee($source->fresh()->error_says)->assertDontSee('Put on the order sheet')
        ->assertDontSee('Tracks');
});

it('re-wraps a video, sound remade where its new container asks for that, and plays the result',
    function (string $format, string $name, int $tracks) {
        $source = $this->bring('lift.mkv', video());
        $this->sheet("/order?sources=$source->id&format=$format")->assertOk()->assertSee($name)->assertSee('Make 1 file');
        $this->order(['sources' => $source->id, 'format' => $format])->assertRedirect();
        $result = Result::query()->sole();
        expect([$result->state, $result->name, $result->error_says])->toBe([ResultState::Done, $name, null])
            ->and($result->isVideo())->toBeTrue();
        $this->get("/results/$result->id/media", ['Range' => 'bytes=0-15'])->assertStatus(206)
            ->assertHeader('Content-Type', $format === 'mkv' ? 'video/webm' : 'video/mp4');
        $again = $this->bring($name, (string) file_get_contents($result->path));
        expect($again->soundTracks()->count())->toBe($tracks)->and($again->picture)->not->toBeNull()->and($again->seconds)
            ->toEqualWithDelta(2.0, 0.05);
        $this->get("/sources/$again->id")->assertOk()->assertSeeInOrder(['The band arrives', 'The first boat']);
    })->with([['mkv', 'lift.mkv', 2], ['mov', 'lift.mov', 2], ['mp4', 'lift.mp4', 2]]);

it('takes the track of a language out of a video, in step with its picture', function () {
    $source = $this->bring('lift.mkv', video());
    $this->order(['sources' => $source->id, 'format' => 'wav', 'track' => 'cym'])->assertRedirect();
    $result = Result::query()->sole();
    $file = (string) file_get_contents((string) $result->path);
    $bytes = substr($file, (int) strpos($file, 'data') + 8, 384_000);
    // Half a second of silence before it, so that it can be laid at the head of the picture.
    expect($result->state)->toBe(ResultState::Done)->and($result->receipt['samples'])->toBe(96_000)
        ->and(strspn($bytes, "\0"))->toBe(96_000)->and(substr($bytes, 96_000, 4))->toBe(pack('v2', 7, 0));
});

it('draws the waveforms of source and result, and none of what is not there', function () {
    $source = $this->bring('clip.wav', TestCase::wave());
    $this->order(['sources' => $source->id, 'format' => 'flac'])->assertRedirect();
    $result = Result::query()->sole();
    foreach (['before', 'after'] as $side) {
        $drawing = $this->get("/results/$result->id/waveform/$side")->assertOk()->assertHeader('Content-Type', 'image/svg+xml');
        expect($drawing->getContent())->toContain('<svg')->toContain('<path');
    }
    $this->get("/results/$result->id/waveform/beside")->assertNotFound();
    unlink((string) $result->path);
    $this->get("/results/$result->id/file")->assertNotFound();
    $this->get("/results/$result->id/media")->assertNotFound();
});

it('takes a source off the list, gives it back, and deletes what was uploaded only out of the bin', function () {
    $source = $this->bring('clip.wav', TestCase::wave());
    $this->order(['sources' => $source->id, 'format' => 'flac'])->assertRedirect();
    $result = Result::query()->sole();
    $this->delete("/sources/$source->id")->assertRedirect('/sources')->assertSessionHas('said', 'Taken off the list: clip.wav');
    expect(Source::query()->count())->toBe(0)->and(is_file($source->path))->toBeTrue()->and(is_file((string) $result->path))->toBeTrue();
    $this->get("/sources/$source->id")->assertNotFound();
    $this->get('/results')->assertOk()->assertSee('clip.flac');
    $this->followingRedirects()->post('/sources/back', ['sources' => (string) $source->id])->assertOk()
        ->assertSee('It is on the list again.');
    expect(Source::query()->sole()->tracks)->toHaveCount(1);
    $this->delete("/sources/$source->id")->assertSessionHas('undo', [$source->id]);
    $this->get('/bin')->assertOk()->assertSee('clip.wav')->assertSee('came by upload');
    $this->post('/bin', ['do' => 'back', 'sources' => [$source->id]])->assertSessionHas('said', 'One put back where it was.');
    $this->delete("/sources/$source->id");
    $waveform = $source->tracks[0]->waveformPath();
    expect($waveform)->toBeFile();
    $this->post('/bin', ['do' => 'destroy', 'sources' => [$source->id]])->assertSessionHas('said', 'One was deleted for good.');
    expect(Source::everyOne()->count())->toBe(0)->and(is_file($source->path))->toBeFalse()->and(is_file((string) $result->path))->toBeTrue()
        ->and($waveform)->not->toBeFile();
    $this->post('/bin', ['do' => 'destroy', 'sources' => [$source->id]])->assertSessionHas('said',
        'Nothing was marked, so nothing was done.');
    $this->post('/bin', ['do' => 'explode'])->assertNotFound();
});

it('leaves a file on its shelf where it is', function () {
    file_put_contents($this->home.'/shelf/kept.wav', TestCase::wave());
    $this->post('/shelves/Videos', ['paths' => ['kept.wav']])->assertRedirect();
    $source = Source::query()->sole();
    $this->delete("/sources/$source->id")->assertRedirect('/sources');
    expect(Source::query()->count())->toBe(0)->and(file_get_contents($this->home.'/shelf/kept.wav'))->toBe(TestCase::wave());
});

it('finds sources by name and sorts them', function () {
    foreach (['alpha.wav' => 400, 'beta.wav' => 100, 'gamma lift.wav' => 900] as $name => $frames) {
        $this->bring($name, TestCase::wave($frames));
    }
    $this->get('/sources')->assertOk()->assertSeeInOrder(['gamma lift.wav', 'beta.wav', 'alpha.wav']);
    $this->get('/sources?by=name')->assertOk()->assertSeeInOrder(['alpha.wav', 'beta.wav', 'gamma lift.wav']);
    $this->get('/sources?find=LIFT')->assertOk()->assertSee('gamma lift.wav')->assertDontSee('beta.wav');
    $this->get('/sources?find=100%25_')->assertOk()->assertDontSee('alpha.wav');
});

it('says that a source is being read, and what became of it', function () {
    Queue::fake();
    $source = $this->bring('clip.wav', TestCase::wave());
    expect($source->state->value)->toBe('reading');
    $this->get("/sources/$source->id")->assertOk()->assertSee('It is being read.')->assertDontSee('Put on the order sheet');
    $this->sheet("/order?sources=$source->id&format=wav")->assertOk()->assertDontSee('Make 1 file');
});
