<?php

declare(strict_types=1);

use Octavox\Core\Json\Fields;
use Octavox\Core\Make\Maker;
use Octavox\Core\Media\Diagnostic;
use Octavox\Core\Media\Findings;
use Octavox\Core\Media\Findings\FindingKinds;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Media\Severity;
use Octavox\Core\Name\Signs;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Plan\OrderLine;
use Octavox\Core\Plan\OrderPlanner;
use Octavox\Core\Reading\Finding;
use Octavox\Core\Reading\FindingWords;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Tag\TagField;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

/** A finding as it comes back out of JSON. */
function stored(Finding $finding): Finding
{
    return Finding::read(new Fields((array) json_decode((string) json_encode($finding->toArray(), JSON_PRESERVE_ZERO_FRACTION), true)));
}

it('has words for every kind, a whole sentence and what to do, and keeps them when stored', function (string $word) {
    $kind = FindingKinds::mapper()->build($word, ['track' => 2, 'at' => $word === 'clipped' ? '0:01.50' : 3, 'what' => 'a FLAC file',
        'bytes' => 12_345, 'times' => 2, 'announced' => 9000, 'there' => 8000, 'unit' => 'samples', 'format' => 'E-AC-3', 'count' => 3,
        'extension' => 'mov', 'container' => 'mkv', 'seconds' => 1.25, 'kbps' => 24.0, 'side' => 'left', 'good' => 'right', 'most' => 128,
        'fields' => 'title', 'sure' => 0.9, 'alike' => 0.05, 'gap' => 3.0, 'unsteady' => 5.0, 'timbre' => 4.0, 'later' => '',
        'peak' => -31.5, 'lufs' => -42.0, 'found' => 'lengths', 'tracks' => 2]);
    $finding = new Finding($kind, Severity::Warn);
    expect($finding->says())->toMatch('/^[A-Z0-9].*[^ ]\.$/')->not->toContain('  ')
        ->and(str_replace('% sure', '', $finding->says()))->not->toContain('%')
        ->and($finding->remedy())->toMatch('/^[A-Z].*\.$/')
        ->and(stored($finding)->toArray())->toBe($finding->toArray())->and(stored($finding)->kind)->toEqual($kind);
})->with(array_diff(FindingKinds::mapper()->all(), ['other']));

it('tells numbers as people write them', function (Finding $finding, string $says) {
    expect($finding->says())->toBe($says);
})->with([
    [Finding::noticed(Diagnostic::cutShort(1_000_000, 999)),
        'The file announces 1,000,000 samples but only 999 are there; what is there can be used.'],
    [Finding::noticed(Diagnostic::cutShort(5000, 4999, 'bytes of sound')),
        'The file announces 5,000 bytes of sound but has only 4,999; what is there can be used.'],
    [Finding::noticed(new Diagnostic(new Findings\CutShort(announced: 12.34, there: 0.0, unit: 'seconds'), Severity::Stop)),
        'The file ends before its sound does, as after a copy that broke off: of 12.3 s there are 0.0 s.'],
    [Finding::noticed(Diagnostic::timeBeginsAnew(1)),
        'The clock of this recording restarts once, as if two recordings had been joined or one interrupted; sound and picture are '
            .'counted on from there.'],
    [new Finding(new Findings\SoundLate(track: 2, seconds: 0.2504), Severity::Note),
        'The sound of track 2 begins 0.250 s after the picture.'],
    [new Finding(new Findings\LowLevel(track: 1, peak: -30.04), Severity::Warn), 'Track 1 is very low: its peak is -30.0 dBFS.'],
    [new Finding(new Findings\LowLevel(track: 1, peak: -30.04, lufs: -44.4), Severity::Warn),
        'Track 1 is very low: its peak is -30.0 dBFS, its loudness -44 LUFS.'],
    [new Finding(new Findings\Clipped(track: 1, times: 1, at: '0:01.50', later: ''), Severity::Note), 'Track 1 clips once: at 0:01.50.'],
    [new Finding(new Findings\TwoMicrophones(track: 3, sure: 0.7, alike: 0.1, gap: -6.2, unsteady: 1.0, timbre: 1.0), Severity::Warn),
        'Left and right of track 3 are probably two microphones and no stereo image (70 % sure): their waves are hardly alike (0.10),'
            .' the right '
        .'is 6 dB louder.'],
]);

it('keeps the words of another release where it has others or none',
    function (array $document, string $code, string $says, string $remedy) {
        $finding = Finding::read(new Fields($document));
        expect([$finding->code(), $finding->says(), $finding->remedy()])->toBe([$code, $says, $remedy])
            ->and(stored($finding)->says())->toBe($says);
    })->with([
        'words alone' => [['code' => 'sound-late', 'level' => 'note', 'says' => 'It is late.', 'remedy' => 'Wait.'],
            'sound-late', 'It is late.',
            'Wait.'],
        'a kind to come' => [['code' => 'too-salty', 'level' => 'warn', 'says' => 'It is salty.', 'remedy' => 'Rinse it.',
            'values' => ['salt' => 3]],
            'too-salty', 'It is salty.', 'Rinse it.'],
        'the same words without values' => [['code' => 'no-sound', 'level' => 'stop',
            'says' => 'This video has no sound track, so there is no sound to take from it.', 'remedy' => 'x'], 'no-sound',
            'This video has no sound track, so there is no sound to take from it.',
            FindingWords::remedy(new Findings\NoSound)],
    ]);

it('refuses what is no finding', function (array $document) {
    expect(fn () => Finding::read(new Fields($document)))->toThrow(UnexpectedValueException::class);
})->with([[['code' => 'silent']], [['code' => 'silent', 'level' => 'loud', 'says' => 'x', 'remedy' => 'y']],
    [['code' => 5, 'level' => 'note', 'says' => 'x', 'remedy' => 'y']]]);

it('finds what importers choke on in names and tags, and a wrong extension, each with what mends it', function () {
    $tags = ['title' => "Lift \u{1F6A4}", 'artist' => 'plain', 'comment' => "two\nlines"];
    $wave = (string) file_get_contents(Scratch::write('x.wav', Signal::wave([Signal::steps(4800, 1)], SampleFormat::signed(16))));
    $found = function (string $name) use ($wave): array {
        $reading = Reader::read(Scratch::write($name, $wave));

        return array_map(fn (Finding $one): array => [$one->code(), $one->shaping], $reading->findings);
    };
    expect($found('plain.wav'))->toBe([])->and($found("Lift \u{1F6A4}.wav"))->toBe([['name-signs', ['name_signs' => 'remove']]])
        ->and($found(str_repeat('n', 130).'.wav'))->toBe([['long-name', []]])
        ->and($found('lies.mp3'))->toBe([['extension-differs', ['format' => 'wav']]]);
    $path = taggedFile($tags);
    $reading = Reader::read($path);
    expect(array_map(fn (Finding $one): string => $one->says(), $reading->findings))
        ->toBe(['Its tags hold emoji (in title), on which some programs and players choke.'])
        ->and($reading->findings[0]->shaping)->toBe(['tag_signs' => 'remove']);
});

/** @param  array<string, string>  $tags */
function taggedFile(array $tags): string
{
    $source = Scratch::write('tagged source.wav', Signal::wave([Signal::steps(48_000, 1)], SampleFormat::signed(16)));
    $plan = OrderPlanner::plan([new OrderLine(Reader::read($source))], new OutputSpec('flac', tags: $tags, place: Scratch::folder()))[0]
        ->plans[0];

    return (new Maker)->make($plan, 'tagged')->path;
}

it('cleans tags of results as they are asked to be', function (Signs $signs, string $title) {
    $path = taggedFile(['title' => "Lift \u{1F6A4} day", 'artist' => 'A']);
    $spec = new OutputSpec('flac', place: Scratch::folder(), tagSigns: $signs, nameSigns: $signs, name: "x \u{1F6A4} {title}");
    $plan = OrderPlanner::plan([new OrderLine(Reader::read($path))], $spec)[0]->plans[0];
    $made = Reader::read((new Maker)->make($plan, 'clean')->path);
    expect($made->tags->get(TagField::Title))->toBe($title)->and($made->tags->get(TagField::Artist))->toBe('A')
        ->and(basename($made->path))->toBe(trim((string) preg_replace('/ +/', ' ', $signs->applied("x \u{1F6A4}").' '.$title)).'.flac');
})->with([[Signs::Keep, "Lift \u{1F6A4} day"], [Signs::Remove, 'Lift day'], [Signs::Spell, 'Lift speedboat day']]);
