<?php

declare(strict_types=1);

use App\Files\OutsideShelf;
use App\Files\Shelves;
use App\Lists\Remedy;
use App\Orders\Models\Order;
use App\Orders\Models\OrderLine;
use App\Orders\Pages\FieldChoices;
use App\Orders\Planning\Place;
use App\Orders\Planning\Remedies;
use App\Orders\Values\SpecForm;
use App\Orders\Values\SpecWords;
use App\Orders\Values\TagInput;
use App\Sources\Models\Source;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Name\Signs;
use Octavox\Core\Order\IfExists;
use Octavox\Core\Order\IfRight;
use Octavox\Core\Order\Length;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Order\SoundSpec;
use Octavox\Core\Plan\Violation;
use Octavox\Core\Plan\Violations;
use Tests\TestCase;

it('offers against each refusal what helps, and what it fills in is a choice of the form', function (Violation $violation, array $labels) {
    $remedies = Remedies::suggest($violation->at('/x'));
    expect(array_map(fn (Remedy $one): string => $one->label, $remedies))->toBe($labels);
    foreach ($remedies as $remedy) {
        $before = new OutputSpec('gsm', sounds: [new SoundSpec('7', layout: '5.1')], name: '{colour}', length: Length::picture());
        expect(SpecForm::of($before)->filled($remedy->fields)->spec)->not->toEqual($before)->and(json_decode($remedy->written(), true))
            ->toBe($remedy->fields);
    }
})->with([
    [new Violations\Channels('MP3', 1, '5.1', nearest: ['mono']), ['Make mono']],
    [new Violations\Channels('MP3', 2, '5.1', nearest: ['stereo', 'mono']), ['Fold to stereo', 'Make mono']],
    [new Violations\NoTrack(track: 9, nearest: [2, 3]), ['Take track 2', 'Take track 3']],
    [new Violations\NoLanguage(language: 'fra', nearest: ['cym', '']), ['Take the first sound track', 'Take that in Welsh']],
    [new Violations\NoPicture('MP4'), ['Take the sound alone, as WAV', 'As FLAC']],
    [new Violations\VideoPieces, ['Take the sound alone, as WAV', 'As FLAC']],
    [new Violations\OnlyKept('AC-3', 'MP3'), ['As WAV', 'As FLAC']],
    [new Violations\NotAlike(2), ['A file of each track']],
    [new Violations\NoLength('lift.wav'), ['As long as the sound']],
    [new Violations\NameField(field: '{colour}'), ['Name it after its source']],
    [new Violations\NoFormat(format: 'x', nearest: ['wav', 'flac', 'mp3', 'aac', 'opus']),
        ['As WAV', 'As FLAC', 'As MP3', 'As AAC (M4A)']],
]);

it('offers the nearest numbers that a format has', function (Violation $violation, string $label, array $fields) {
    $first = Remedies::suggest($violation->at('/x'))[0];
    expect([$first->label, $first->fields])->toBe([$label, $fields]);
})->with([
    [new Violations\Rate('Opus', 44_100, nearest: [48_000]), 'At 48 kHz', ['rate' => '48000']],
    [new Violations\BitDepth('FLAC', 32, nearest: [24]), 'With 24 bits', ['bits' => '24']],
    [new Violations\BitRate('MP3', 500, 48_000, 2, nearest: [320]), 'At 320 kbit/s', ['quality' => 'kbps:320']],
    [new Violations\VideoSound('WebM', 'AAC-LC'), 'Its sound as AAC', ['sound' => 'aac']],
]);

it('offers nothing where nothing of an order helps', function () {
    expect(Remedies::suggest(null))->toBe([])->and(Remedies::suggest((new Violations\NoSound)->at('/x')))->toBe([])
        ->and(Remedies::suggest(Octavox\Core\Bytes\FileUnreadable::missing('/x')))->toBe([]);
});

it('says of every field that a line asks otherwise what it is, and sets each back alone', function () {
    $changes = new OutputSpec('mp3',
        sounds: [new SoundSpec('2', 'aac', RateControl::near(96), 8000, 24, 'mono', ['lav'], '0-1', true, true, '1', '2',
            'peak:-1', true)], length: Length::picture(), tags: ['title' => 'x', 'MOOD' => null], name: '{title}', place: '/x',
        ifExists: IfExists::Skip,
        ifRight: IfRight::Leave, nameSigns: Signs::Remove, tagSigns: Signs::Spell);
    $words = SpecWords::say($changes);
    expect($changes->said())->toEqualCanonicalizing(array_keys($words))->and(count($words))->toBe(24);
    foreach ($words as $field => $word) {
        $less = $changes->without((string) $field);
        expect($word)->not->toBe('')->and(array_keys(SpecWords::say($less)))
            ->toEqualCanonicalizing(array_values(array_diff(array_keys($words), [$field])));
    }
    expect($changes->without(...array_keys($words))->isEmpty())->toBeTrue();
    $left = SpecWords::say(new OutputSpec(sounds: [new SoundSpec(left: $changes->sounds()[0]->said())]));
    expect(array_keys($left))->toBe($changes->sounds()[0]->said())->and(array_unique($left))->toHaveCount(14);
});

it('puts results only where a shelf is open for writing', function () {
    config(['octavox.writable' => 'Videos']);
    mkdir($this->home.'/shelf/in');
    $order = new Order;
    $order->id = 3;
    $own = $this->home.'/results/0003';
    [$shelved, $uploaded] = [new Source(['path' => $this->home.'/shelf/in/a.wav', 'origin' => 'shelf']),
        new Source(['path' => $this->home.'/sources/x/a.wav', 'origin' => 'upload'])];
    $folders = fn (string $written): array => array_map(fn (Source $source): string => Place::of($written, app(Shelves::class))
        ->folder($order, $source),
        [$shelved, $uploaded]);
    expect($folders(''))->toBe([$own, $own])->and($folders('beside'))->toBe([$this->home.'/shelf/in', $own])
        ->and($folders('shelf:Videos/in'))->toBe([$this->home.'/shelf/in', $this->home.'/shelf/in'])->and($folders('/etc'))
        ->toBe([$own, $own])
        ->and(fn () => $folders('shelf:Videos/../..'))->toThrow(OutsideShelf::class)
        ->and(array_keys(Place::of('', app(Shelves::class))->choices()))->toBe(['', 'beside', 'shelf:Videos', 'shelf:Videos/in'])
        ->and(Place::of('beside', app(Shelves::class))->note($uploaded))->toContain('came by upload')
        ->and(Place::of('beside', app(Shelves::class))->note($shelved))->toBe('');
    config(['octavox.writable' => 'Other']);
    expect($folders('beside'))->toBe([$own, $own])->and(Place::of('beside', app(Shelves::class))->note($shelved))
        ->toContain('not open for writing')
        ->and(fn () => $folders('shelf:Videos'))->toThrow(OutsideShelf::class, 'not open for writing')
        ->and(fn () => $folders('shelf:Gone'))->toThrow(OutsideShelf::class, 'There is no shelf');
});

it('reads tags as they are typed', function (mixed $typed, array $tags) {
    expect(TagInput::read($typed))->toBe($tags);
})->with([
    [['title' => ' The lift '], ['title' => 'The lift']], [['artist' => 'A; B;;A '], ['artist' => ['A', 'B', 'A']]],
    [['artist' => 'A;'], ['artist' => 'A']],
    [['comment' => 'one; two'], ['comment' => 'one; two']], [['title' => ''], ['title' => null]], [['title' => null], ['title' => null]],
    [['mood' => 'x', 'my own' => 'y', '' => 'z', 'duration' => '1'], ['mood' => 'x', 'MY OWN' => 'y']], [['title' => ['x']], []],
    ['title', []], [null, []],
]);

it('leaves the format to the destination as long as nobody chooses one', function () {
    $open = new FieldChoices(SpecForm::of(new OutputSpec), [], true);
    $chosen = new FieldChoices(SpecForm::of(new OutputSpec)->filled(['format' => 'mp3', 'quality' => 'kbps:96'], false), [], true);
    expect($open->hasFormat())->toBeFalse()->and($open->formatNote())->toContain('as the destination needs it')
        ->and($chosen->hasFormat())->toBeTrue()
        ->and($chosen->qualityNote())->toContain('96 kbit/s')
        ->and(SpecForm::of(new OutputSpec('mp3'))->filled(['format' => ''], false)->spec->container)->toBeNull();
});

it('asks of the order what is asked of its only line, but what only this source can have', function () {
    $order = $this->draft(['format' => 'flac'], 'a.wav');
    $line = $order->lines[0];
    $this->patch("/orders/$order->id/lines/$line->id", ['layout' => 'mono', 'fade_in' => '0.1'])->assertOk();
    $this->patch("/orders/$order->id/lines/$line->id", ['pieces' => '0-0.05'])->assertOk();
    $this->patch("/orders/$order->id/lines/$line->id", ['tags' => ['title' => 'Own']])->assertOk();
    expect($order->refresh()->asked()->sounds()[0]->said())->toBe(['layout', 'fade_in'])->and($line->refresh()->changes()->said())
        ->toBe(['tags.title', 'pieces']);
    $other = $this->bring('b.wav', TestCase::wave(9000));
    $this->post('/ticks', ['sources' => "$other->id", 'on' => 1]);
    expect(OrderLine::query()->where('source_id', $other->id)->sole()->spec)->toBeNull();
});
