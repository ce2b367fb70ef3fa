<?php

declare(strict_types=1);

use Octavox\Core\Codec\RateControl;
use Octavox\Core\Codec\RateMode;
use Octavox\Core\Codec\StereoCoding;
use Octavox\Core\Name\Signs;
use Octavox\Core\Order\IfExists;
use Octavox\Core\Order\IfRight;
use Octavox\Core\Order\Length;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Order\PictureChoice;
use Octavox\Core\Order\SoundSpec;
use Octavox\Core\Order\SpecInvalid;
use Octavox\Core\Order\SpecTable;
use Octavox\Core\Tests\Support\SchemaCheck;

/** @return array<string, mixed> */
function specSchema(): array
{
    return (array) json_decode((string) file_get_contents(dirname(__DIR__).'/schema/output-spec.json'), true, 32, JSON_THROW_ON_ERROR);
}

function fullSpec(): OutputSpec
{
    return new OutputSpec('mov', PictureChoice::Keep, [
        new SoundSpec('1', 'wav', RateControl::exactly(192), 48_000, 24, 'split', ['lav', 'boom'], '0-1,2-end', true, true, '0.5', '1',
            'lufs:-16', true, StereoCoding::Separate, true, 3, false),
        new SoundSpec('welsh', 'aac', RateControl::near(128)), new SoundSpec(rateControl: RateControl::near(96)->held(RateMode::Average)),
        new SoundSpec(rateControl: RateControl::exactly(96)->held(RateMode::Constant)),
        new SoundSpec(rateControl: RateControl::variable(2)), new SoundSpec,
        new SoundSpec(rate: 8000, left: ['layout', 'level']),
    ], Length::sound(), ['title' => 'The lift', 'comment' => null, 'ISRC' => ['A', 'B']], '{stem} {label}', '/results', IfExists::Skip,
        IfRight::Leave, Signs::Remove, Signs::Spell);
}

it('goes through JSON and comes back the same', function (OutputSpec $spec) {
    $json = json_encode($spec->toArray(), JSON_THROW_ON_ERROR);
    expect(OutputSpec::fromJson($json))->toEqual($spec)->and(json_encode(OutputSpec::fromJson($json)->toArray()))->toBe($json);
})->with([[new OutputSpec], [new OutputSpec('wav')], [fullSpec()], [new OutputSpec(tags: [])]]);

it('is what its schema says, field by field and word by word', function () {
    $schema = specSchema();
    $sound = $schema['properties']['sounds']['items'];
    $words = fn (string $enum): array => array_map(fn (BackedEnum $case): string => (string) $case->value, $enum::cases());
    expect(array_keys($schema['properties']))->toBe(['version', ...SpecTable::names(SpecTable::output())])
        ->and(array_keys($sound['properties']))->toBe(SpecTable::names(SpecTable::sound()))
        ->and(file_get_contents(dirname(__DIR__).'/schema/output-spec.json'))->toBe(SpecTable::schemaText())
        ->and(array_keys(get_object_vars(new OutputSpec)))->toBe(array_map(fn ($field) => $field->property, SpecTable::output()))
        ->and(array_keys(get_object_vars(new SoundSpec)))->toBe([...array_map(fn ($field) => $field->property, SpecTable::sound()), 'left'])
        ->and($schema['properties']['version'])->toMatchArray(['minimum' => 1, 'maximum' => OutputSpec::VERSION])
        ->and($schema['properties']['picture']['enum'])->toBe($words(PictureChoice::class))
        ->and(array_slice($sound['properties']['stereo']['enum'], 0, -1))->toBe($words(StereoCoding::class))
        ->and($sound['properties']['rate_control']['properties']['held']['enum'])->toBe($words(RateMode::class))
        ->and($schema['properties']['if_exists']['enum'])->toBe($words(IfExists::class))
        ->and($schema['properties']['if_right']['enum'])->toBe($words(IfRight::class));
});

it('takes what its schema takes and refuses what it refuses', function (array $change, bool $holds) {
    $document = array_replace(json_decode((string) json_encode(fullSpec()->toArray()), true), $change);
    $document = array_filter($document, fn (mixed $value): bool => $value !== 'gone');
    $isRead = true;
    try {
        OutputSpec::fromArray($document);
    } catch (SpecInvalid $invalid) {
        $isRead = false;
        expect($invalid->getMessage())->toContain('This specification');
    }
    expect(SchemaCheck::breaches(specSchema(), $document) === [])->toBe($holds)->and($isRead)->toBe($holds);
})->with([
    [[], true], [['container' => 'gone'], true], [['sounds' => []], true], [['tags' => ['title' => 'x']], true],
    [['version' => 'gone'], false], [['version' => 2], false], [['version' => 0], false], [['version' => '1'], false],
    [['container' => 7], false], [['picture' => 'drop'], false], [['picture' => true], false],
    [['if_exists' => 'shout'], false], [['if_right' => 'skip'], false], [['surprise' => 1], false], [['sounds' => 'all'], false],
    [['sounds' => [['rate' => 0]]], false], [['sounds' => [['rate' => 48_000.5]]], false], [['sounds' => [['rate' => '48000']]], false],
    [['sounds' => [['bit_depth' => 65]]], false], [['sounds' => [['labels' => 'lav']]], false], [['sounds' => [['labels' => [1]]]], false],
    [['sounds' => [['separate' => 'yes']]], false], [['sounds' => [['speed' => 2]]], false],
    [['sounds' => array_fill(0, 101, ['rate' => 48_000])], false],
    [['sounds' => [['rate_control' => ['mode' => 'constant', 'kbps' => 0]]]], false],
    [['sounds' => [['rate_control' => ['kbps' => 128]]]], false],
    [['sounds' => [['rate_control' => ['mode' => 'variable', 'quality' => 10]]]], false],
    [['sounds' => [['rate_control' => ['mode' => 'loud', 'kbps' => 1]]]], false],
    [['name' => ['x']], false], [['place' => 5], false], [['name_signs' => 'eat'], false], [['tags' => array_fill(0, 201, 'x')], false],
    [['sounds' => [['rate' => null, 'labels' => null, 'rate_control' => null]]], true],
]);

it('refuses what a schema cannot say', function (array $document, string $field) {
    expect(fn () => OutputSpec::fromArray(['version' => 1] + $document))->toThrow(SpecInvalid::class, $field);
})->with([
    [['sounds' => [['rate_control' => ['mode' => 'constant']]]], 'sounds[0].rate_control'],
    [['sounds' => [[], ['rate_control' => ['mode' => 'variable', 'kbps' => 128]]]], 'sounds[1].rate_control'],
    [['sounds' => [['rate_control' => ['mode' => 'constant', 'kbps' => 128, 'quality' => 2]]]], 'sounds[0].rate_control'],
    [['length' => 'long'], 'length'], [['length' => '-3'], 'length'], [['length' => '0'], 'length'],
    [['tags' => ['duration' => '5']], 'tags.duration'], [['tags' => ['title' => 5]], 'tags.title'], [['name' => "a\xFF"], 'name'],
]);

it('refuses what is no spec at all', function () {
    expect(fn () => OutputSpec::fromJson('nonsense', '/x.json'))->toThrow(SpecInvalid::class, 'no JSON object')
        ->and(fn () => OutputSpec::fromJson('"text"'))->toThrow(SpecInvalid::class)
        ->and(fn () => OutputSpec::fromJson('{"version":3}'))->toThrow(SpecInvalid::class, 'version 3');
});

it('lies over another: what it says wins, what it does not say stays', function () {
    $recipe = new OutputSpec('mp3', sounds: [new SoundSpec(rateControl: RateControl::near(128), rate: 44_100, level: 'lufs:-16')],
        name: '{stem}', ifExists: IfExists::Number);
    $order = new OutputSpec(sounds: [new SoundSpec(rate: 48_000, layout: 'mono')], place: '/x', tags: ['title' => 'A', 'album' => 'B']);
    $line = new OutputSpec(sounds: [new SoundSpec(level: '')], tags: ['title' => null], ifExists: IfExists::Skip);
    $all = $line->over($order)->over($recipe);
    expect([$all->container, $all->place, $all->name, $all->ifExists])->toBe(['mp3', '/x', '{stem}', IfExists::Skip])
        ->and($all->sounds)->toEqual([new SoundSpec(rateControl: RateControl::near(128), rate: 48_000, layout: 'mono', level: '')])
        ->and($all->tags)->toBe(['title' => null, 'album' => 'B'])
        ->and($line->over($order->over($recipe)))->toEqual($all)
        ->and((new OutputSpec)->over($all))->toEqual($all)->and($all->over(new OutputSpec))->toEqual($all);
});

it('lets each part win where it is said, and the one beneath where it is not', function (string $part, mixed $own, mixed $other) {
    [$upper, $lower] = [new OutputSpec(...[$part => $own]), new OutputSpec(...[$part => $other])];
    expect($upper->over($lower)->{$part})->toEqual($own)->and($lower->over($upper)->{$part})->toEqual($other)
        ->and((new OutputSpec)->over($lower))->toEqual($lower)->and($upper->over(new OutputSpec))->toEqual($upper);
})->with([
    ['container', 'wav', 'flac'], ['picture', PictureChoice::Keep, PictureChoice::Leave], ['length', Length::sound(),
        Length::tryFrom('0:30')],
    ['name', 'a', 'b'], ['place', '/a', '/b'], ['ifExists', IfExists::Skip, IfExists::Replace], ['ifRight', IfRight::Leave, IfRight::Copy],
    ['tags', ['title' => 'a'], ['title' => 'b']],
]);

it('lets each part of a sound win where it is said, false and nothing too', function (string $part, mixed $own, mixed $other) {
    [$upper, $lower] = [new SoundSpec(...[$part => $own]), new SoundSpec(...[$part => $other])];
    expect($upper->over($lower)->{$part})->toEqual($own)->and($lower->over($upper)->{$part})->toEqual($other)
        ->and((new SoundSpec)->over($lower))->toEqual($lower)->and($upper->isEmpty())->toBeFalse();
})->with([
    ['tracks', '1', '2'], ['codec', 'aac', 'opus'], ['rateControl', RateControl::near(96), RateControl::variable(2)],
    ['rate', 8000, 48_000],
    ['bitDepth', 16, 24], ['layout', 'mono', 'split'], ['labels', [], ['lav']], ['pieces', '', '0-1'], ['separate', false, true],
    ['exact', false, true], ['fadeIn', '', '1'], ['fadeOut', '0', '1'], ['level', '', 'peak:-1'], ['together', false, true],
    ['stereo', StereoCoding::Joint, StereoCoding::Separate], ['checksums', false, true], ['compression', 0, 8], ['dither', false, true],
]);

it('lays what speaks of all sounds over each, and what speaks of one over that one', function () {
    $tracks = new OutputSpec(sounds: [new SoundSpec('1', layout: 'split'), new SoundSpec('2', codec: 'aac')]);
    $all = new OutputSpec(sounds: [new SoundSpec(rate: 48_000)]);
    expect($all->over($tracks)->sounds)
        ->toEqual([new SoundSpec('1', layout: 'split', rate: 48_000), new SoundSpec('2', codec: 'aac', rate: 48_000)])
        ->and($tracks->over($all)->sounds)->toEqual($all->over($tracks)->sounds)
        ->and((new OutputSpec(sounds: [new SoundSpec('2', rate: 8000)]))->over($tracks)->sounds)
        ->toEqual([new SoundSpec('2', codec: 'aac', rate: 8000)])
        ->and((new OutputSpec(sounds: [new SoundSpec('3', rate: 8000), new SoundSpec]))->over($tracks)->sounds)
        ->toEqual([new SoundSpec('3', rate: 8000), new SoundSpec]);
});

it('changes nothing of itself', function () {
    $spec = new OutputSpec('wav', name: 'x');
    expect($spec->withContainer('flac')->withName(null))->toEqual(new OutputSpec('flac'))->and($spec)
        ->toEqual(new OutputSpec('wav', name: 'x'))
        ->and((new SoundSpec(level: 'gain:1'))->withLevel(null)->isEmpty())->toBeTrue();
});

it('says what it must say to become one spec on top of another, and nothing else', function (OutputSpec $wanted, OutputSpec $beneath,
    array $says) {
    $since = $wanted->since($beneath);
    $said = json_decode((string) json_encode($since->toArray()), true);
    unset($said['version']);
    expect($said)->toEqual($says)->and($since->over($beneath)->withSounds([]))->toEqual($wanted->over($beneath)->withSounds([]))
        ->and(['left' => []] + get_object_vars($since->over($beneath)->sounds()[0]))->toEqual(['left' => []] + get_object_vars($wanted
        ->sounds()[0]));
})->with([
    [new OutputSpec('wav'), new OutputSpec('wav'), []],
    [new OutputSpec('wav', name: 'a'), new OutputSpec('mp3', name: 'a', place: '/x'), ['container' => 'wav']],
    [new OutputSpec('wav'), new OutputSpec('wav', sounds: [new SoundSpec(rate: 8000, layout: 'mono')]),
        ['sounds' => [['rate' => null, 'layout' => null]]]],
    [new OutputSpec('wav', sounds: [new SoundSpec(rate: 48_000)]), new OutputSpec('wav', sounds: [new SoundSpec(rate: 8000,
        layout: 'mono')]),
        ['sounds' => [['rate' => 48_000, 'layout' => null]]]],
    [new OutputSpec(tags: ['title' => 'a', 'album' => 'b']), new OutputSpec(tags: ['title' => 'a', 'album' => 'c']), ['tags' => ['album' => 'b']]],
    [new OutputSpec(sounds: [new SoundSpec(rateControl: RateControl::near(128))]),
        new OutputSpec(sounds: [new SoundSpec(rateControl: RateControl::near(128), level: 'peak:-1')]), ['sounds' => [['level' => null]]]],
]);

it('leaves a field to the source whatever lies beneath, until somebody above says something', function () {
    $beneath = new SoundSpec(rate: 8000, layout: 'mono', level: 'peak:-1');
    $left = (new SoundSpec(left: ['rate']))->over($beneath);
    expect([$left->rate, $left->layout, $left->left])->toBe([null, 'mono', ['rate']])
        ->and((new SoundSpec(rate: 48_000))->over($left)->rate)->toBe(48_000)->and((new SoundSpec(rate: 48_000))->over($left)->left)
        ->toBe([])
        ->and($left->said())->toBe(['rate', 'layout', 'level'])->and($left->without('rate', 'level')->said())->toBe(['layout'])
        ->and((new SoundSpec(left: ['rate']))->isEmpty())->toBeFalse();
});
