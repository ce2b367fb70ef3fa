<?php

declare(strict_types=1);

use Octavox\Core\Make\ChildDied;
use Octavox\Core\Media\Phase;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Parallel\ChildMessage;
use Octavox\Core\Parallel\CoreScript;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

/** @return array{int, ?ChildMessage, string} exit status, the last message, what it said of its own troubles */
function askChild(string $script, mixed $asked): array
{
    $process = proc_open(CoreScript::command($script, true), [['pipe', 'r'], ['pipe', 'w'], ['pipe', 'w']], $pipes);
    fwrite($pipes[0], is_string($asked) ? $asked : (string) json_encode($asked));
    fclose($pipes[0]);
    $said = trim((string) stream_get_contents($pipes[1]));
    $troubles = (string) stream_get_contents($pipes[2]);
    $lines = explode("\n", $said);

    return [proc_close($process), ChildMessage::parse($lines[count($lines) - 1]), $troubles];
}

it('says and hears how far a child is, what it found, and why it failed', function () {
    $progress = ChildMessage::parse(ChildMessage::progressLine(Phase::Verifying, 48_000, 96_000));
    $answer = ChildMessage::parse(ChildMessage::answerLine(['reading' => ['path' => "/a \u{1F6A4}/b\n.wav"]]));
    $failure = ChildMessage::parse(ChildMessage::failureLine(ChildDied::silent('/a.wav', 120)));
    expect($progress?->progress)->toBe([Phase::Verifying, 48_000, 96_000])->and($progress?->answer)->toBeNull()
        ->and($answer?->answer)->toBe(['reading' => ['path' => "/a \u{1F6A4}/b\n.wav"]])->and($answer?->failure)->toBeNull()
        ->and($failure?->failure?->code())->toBe(ChildDied::silent('/a.wav', 120)->code())
        ->and($failure?->failure?->getMessage())->toBe(ChildDied::silent('/a.wav', 120)->getMessage())
        ->and(substr_count(ChildMessage::answerLine(['a' => "b\nc"]), "\n"))->toBe(1);
});

it('takes nothing else for a message', function (string $line) {
    expect(ChildMessage::parse($line))->toBeNull();
})->with(['', 'Warning: something', '[]', '"text"', '{"kind":"song"}', '{"kind":"progress"}',
    '{"kind":"progress","phase":"dancing","done":1,"of":2}',
    '{"kind":"progress","phase":"making","done":"1","of":2}', '{"kind":"answer"}', '{"kind":"answer","answer":5}',
    '{"kind":"failure","code":"x"}', '{"kind":']);

it('answers what it is asked, in one document', function () {
    $wave = Scratch::write('a.wav', Signal::wave([Signal::steps(4800, 1)], SampleFormat::signed(16)));
    [$status, $reading] = askChild('reading', ['path' => $wave, 'cover' => Scratch::folder().'/cover']);
    [$analyzed, $analysis] = askChild('analysis', ['path' => $wave, 'track' => 1, 'waveform' => $drawn = Scratch::folder().'/a.waveform']);
    expect([$status, $analyzed])->toBe([0, 0])->and($reading?->answer['reading']['container'])->toBe('wav')
        ->and($analysis?->answer['analysis']['samples'])->toBe(4800)->and(filesize($drawn))->toBeGreaterThan(50);
});

it('says in a message why it cannot, and nothing else', function (string $script, mixed $asked, string $code) {
    [$status, $message] = askChild($script, $asked);
    expect($message?->failure?->code())->toBe($code)->and($status)->toBeGreaterThan(0)->and($message?->failure?->getMessage())
        ->toMatch('/\.$/');
})->with(fn (): array => [
    'no file' => ['reading', ['path' => '/nowhere/a.wav'], 'file-unreadable'],
    'no media' => ['reading', ['path' => Scratch::write('a.mp4', str_repeat('My notes. ', 90))], 'unknown-format'],
    'an empty file' => ['reading', ['path' => Scratch::write('empty.wav', '')], 'empty-file'],
    'no such track' => ['analysis',
        ['path' => Scratch::write('a.wav', Signal::wave([Signal::steps(48, 1)], SampleFormat::signed(16))), 'track' => 9,
            'waveform' => '/tmp/never'], 'track-missing'],
    'no plan' => ['maker', ['plan' => []], 'plan-unreadable'],
    'a plan of a version to come' => ['maker', ['plan' => ['version' => 77]], 'plan-unreadable'],
]);

it('survives nonsense on its input', function (string $script, string $asked) {
    [$status, $message] = askChild($script, $asked);
    expect($status)->toBeGreaterThan(0)->and($message === null || $message->failure !== null)->toBeTrue();
})->with(['reading', 'analysis', 'borders', 'maker', 'excerpt'])
    ->with(['', 'nonsense', '[]', '{"path":[]}', '{"path":5,"track":"x","plan":3}', "\0\xFF"]);
