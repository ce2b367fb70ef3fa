<?php

declare(strict_types=1);

use Octavox\Core\Json\Fields;
use Octavox\Core\Plan\CannotPlan;
use Octavox\Core\Plan\PlanWords;
use Octavox\Core\Plan\Step;
use Octavox\Core\Plan\Steps;
use Octavox\Core\Plan\Steps\StepKinds;
use Octavox\Core\Plan\Violation;
use Octavox\Core\Plan\Violations;
use Octavox\Core\Plan\Violations\OfFormat;
use Octavox\Core\Plan\Violations\ViolationKinds;
use Octavox\Core\Sound\LevelTarget;

/** Every kind of step, with the values that belong to it, and what it says. */
function steps(): array
{
    return [
        [new Step(new Steps\CopyPicture(format: 'H.264')), 'the H.264 picture is copied untouched'],
        [new Step(new Steps\CopySound(format: 'AAC-LC')), 'the AAC-LC sound is copied untouched'],
        [new Step(new Steps\CutExact), 'exact to the sample'],
        [new Step(new Steps\CutMoved(early: 12.34, late: 0.0)), 'on frame borders: it begins 12.3 ms early and ends 0.0 ms late'],
        [new Step(new Steps\Piece(from: '0:01.000', until: '0:02.500')), 'from 0:01.000 to 0:02.500'],
        [new Step(new Steps\Pieces(count: 3, total: '0:06.500')), '3 pieces, 0:06.500 together'],
        [new Step(new Steps\WholeFrames(samples: 1234)), 'whole frames: 1,234 samples more than the source presents'],
        [new Step(new Steps\Decode(format: 'MP3', tracks: 1)), 'decode MP3'],
        [new Step(new Steps\Decode(format: '16-bit PCM', tracks: 6)), 'decode 16-bit PCM of 6 tracks together'],
        [new Step(new Steps\SilenceBefore(seconds: 0.25)), '0.250 s of silence first, so that it starts with the picture'],
        [new Step(new Steps\DropBefore(seconds: 1)), 'leave out 1.000 s before the picture starts'],
        [new Step(new Steps\SilenceAfter(seconds: 2.0004)), '2.000 s of silence at the end, as long as the picture'],
        [new Step(new Steps\SilenceAfter(seconds: 2.0, length: '0:30')), '2.000 s of silence at the end, as long as is asked'],
        [new Step(new Steps\Encode(format: 'MP3', kbps: 96, mode: 'average', stereo: 'joint', checksums: true)),
            'encode MP3 at 96 kbit/s, on average, joint stereo, with checksums'],
        [new Step(new Steps\DropAfter(seconds: 0.0315)), 'leave out 0.032 s after the picture has ended'],
        [new Step(new Steps\Route(channels: ['R', 'L'], layout: 'stereo')), 'R, L to stereo'],
        [new Step(new Steps\Route(channels: ['L', 'L'], layout: 'stereo')), 'L to both sides'],
        [new Step(new Steps\Route(channels: ['L'], layout: 'mono')), 'L to mono'],
        [new Step(new Steps\Mix(from: '5.1', layout: 'stereo')), '5.1 to stereo'],
        [new Step(new Steps\Label(label: 'lav')), '“lav”'],
        [new Step(new Steps\Deemphasis(tracks: 2)), 'pre-emphasis taken off'],
        [new Step(new Steps\Fade(in: 0.5, out: 0.0)), 'fade in over 0.50 s'],
        [new Step(new Steps\Fade(in: 0.5, out: 2)), 'fade in over 0.50 s, fade out over 2.00 s'],
        [new Step(new Steps\Level(target: 'peak:-1')), 'peak at -1.0 dBFS'],
        [new Step(new Steps\Level(target: 'gain:3')), '+3.0 dB'],
        [new Step(new Steps\Level(target: 'lufs:-16:-2')), 'loudness at -16.0 LUFS, true peak at most -2.0 dBFS'],
        [new Step(new Steps\Resample(from: 44_100, rate: 48_000)), '44.1 kHz to 48 kHz'],
        [new Step(new Steps\Resample(from: 48_000, rate: 11_025)), '48 kHz to 11.025 kHz, nothing above 5.512 kHz is left'],
        [new Step(new Steps\Dither(bits: 16)), 'dither to 16 bits'],
        [new Step(new Steps\Dither(bits: 20, of: 24)), 'dither to 20 bits of 24'],
        [new Step(new Steps\LossyAgain), 'compressed with loss a second time'],
        [new Step(new Steps\Encode(format: 'MP3', kbps: 192)), 'encode MP3 at 192 kbit/s'],
        [new Step(new Steps\Encode(format: 'Vorbis', quality: 0)), 'encode Vorbis, variable rate 0'],
        [new Step(new Steps\Encode(format: '24-bit FLAC', lossless: true)), 'write 24-bit FLAC'],
        [new Step(new Steps\Encode(format: 'GSM 6.10')), 'encode GSM 6.10'],
        [new Step(new Steps\DropTags(fields: ['album_artist', 'cover'], format: 'AU')),
            'without album artist, cover: AU has no place for them'],
        [new Step(new Steps\DropChapters(format: 'AU')), 'without chapters: AU has no place for them'],
        [new Step(new Steps\CopyAuxiliary(auxiliary: 'subtitles', track: 3, language: 'cym', container: 'MKV', coding: 'tx3g')),
            'subtitles 3 (Welsh) copied'],
        [new Step(new Steps\CopyAuxiliary(auxiliary: 'timecode', track: 4, language: '', container: 'MKV', coding: 'tmcd')),
            'the time code copied'],
        [new Step(new Steps\DropAuxiliary(auxiliary: 'subtitles', track: 3, language: '', container: 'WebM', coding: 'tx3g')),
            'subtitles 3 left out: WebM has no place for “tx3g”'],
        [new Step(new Steps\FilledSilence(time: '0:03.2')),
            '0:03.2 of it is silence, filled in where the file’s timestamps leave gaps.'],
        [new Step(new Steps\AssumedPlaces(channels: ['L', 'R', 'C'], narrow: false)),
            'The source does not say where its 3 channels belong; they are taken as L R C, in '
            .'the order of WAV. If that is wrong, choose their layout, or make a file of each.'],
        [new Step(new Steps\AssumedPlaces(channels: ['L', 'R', 'LFE'], narrow: true)),
            'The source does not say where its 3 channels belong; they are taken as L R LFE, '
            .'in the order of WAV. LFE may keep its low frequencies alone. If that is wrong, choose their layout, or make a file of each.'],
        [new Step(new Steps\LateStart(samples: 1600, rate: 48_000)),
            'other programs start it 1,600 samples (33.3 ms) late, because this kind of file cannot say what its encoder adds at the '
                .'start'],
        [new Step(new Steps\EnoughRate(kbps: 128, format: 'MP3', own: 49.2, source: 'Opus')),
            '128 kbit/s, enough for MP3 to lose nothing more audible of 49 kbit/s of Opus'],
        [new Step(new Steps\RaisedRate(kbps: 320, own: 63.6)),
            '320 kbit/s is made from 64 kbit/s: the file gets larger, the sound no better. '
            .'Leave the bit rate to the source, or choose a lower one.'],
        [new Step(new Steps\DoubtfulSound(says: 'Many players stay silent.')), 'Many players stay silent.'],
    ];
}

it('says each step in words, and the same after it was stored', function (Step $step, string $says) {
    $stored = Step::fromFields(new Fields((array) json_decode((string) json_encode($step->toArray(), JSON_PRESERVE_ZERO_FRACTION), true)));
    expect(PlanWords::step($step))->toBe($says)->and(PlanWords::step($stored))->toBe($says)->and($stored)->toEqual($step)
        ->and(Step::fromFields(new Fields($step->ofSound(2)->toArray())))->toEqual($step->ofSound(2));
})->with(steps(...));

it('has words for every kind of step', function () {
    $said = array_map(fn (array $case): string => StepKinds::mapper()->word($case[0]->kind), steps());
    expect(array_diff(StepKinds::mapper()->all(), $said))->toBe([]);
});

it('refuses a stored step that it does not know', function (array $document) {
    expect(fn () => Step::fromFields(new Fields($document)))->toThrow(UnexpectedValueException::class);
})->with([[['kind' => 'polish']], [[]], [['kind' => 7]], [['kind' => 'piece', 'sound' => 'first']]]);

/** Every rule that can be broken, with what its words name. */
function violations(): array
{
    return [
        [new Violations\NoFormat(format: 'wax', nearest: ['wav', 'w64']),
            'There is no format called “wax”; these are there: wav, w64.'],
        [new Violations\SoundAlone(format: 'MP3', nearest: ['mp4', 'mkv']),
            'MP3 holds sound alone; where the picture is to be kept choose one of these: mp4, mkv.'],
        [new Violations\PictureLeft(format: 'MKV', nearest: ['wav', 'mka']),
            'MKV is a kind of video; where the picture is to be left out choose one of these: wav, mka.'],
        [new Violations\OtherCodec(format: 'FLAC', codec: 'mp3', nearest: ['flac']),
            'FLAC is not made with “mp3” in it; leave the codec out, or choose another format.'],
        [new Violations\NoSound,
            'This file has no sound track, so there is no sound to take from it; bring in the recording that was made beside it.'],
        [new Violations\NoTrack(track: 7, nearest: [1, 2]),
            'There is no sound track 7 in this file; choose one of these: 1, 2.'],
        [new Violations\NoLanguage(language: 'fra', nearest: ['cym', '']),
            'There is no sound track in the language French in this file; it has these: Welsh, not stated.'],
        [new Violations\EmptyTrack(track: 2),
            'Track 2 holds no sound at all, so nothing can be made of it; copy the file again from where it came from.'],
        [new Violations\TooShort(track: 1, rate: 22_050),
            'What is asked of track 1 is shorter than one sample at 22,050 Hz, so nothing would be left of it; choose a longer piece or a '
            .'higher rate.'],
        [new Violations\Stopped(says: 'It ends at once.', remedy: 'Copy it again.'), 'It ends at once. Copy it again.'],
        [new Violations\Channels(format: 'MP3', most: 2, layout: '5.1', nearest: ['stereo', 'mono']),
            'MP3 carries 2 channels at most, but the sound is 5.1; ask for stereo or mono, or for a format that carries it, such as WAV.'],
        [new Violations\Channels(format: 'GSM', most: 1, layout: 'stereo', nearest: ['mono']),
            'GSM carries 1 channel at most, but the sound is stereo; ask for mono, or for a format that carries it, such as WAV.'],
        [new Violations\NoPicture(container: 'MP4'),
            'There is no picture in this file, so it cannot become MP4; ask for a sound format instead.'],
        [new Violations\Picture(picture: 'VP9', container: 'MOV'),
            'The picture is VP9, which cannot be copied as it is into MOV; choose another kind of video, or take only the sound.'],
        [new Violations\VideoSound(container: 'WebM', format: 'AAC-LC'),
            'WebM cannot carry AAC-LC beside its picture; choose another sound format for it.'],
        [new Violations\OnlyKept(format: 'AC-3', source: 'MP3'),
            'AC-3 can be copied untouched from a source that has it, but not made of MP3 here; choose a format that can be made, such as '
            .'FLAC or WAV.'],
        [new Violations\Silence(track: 1, hours: 26.52),
            'Track 1 would be 26.5 hours of silence with hardly any sound in it, which is most likely a mistake in the file’s times; '
            .'take '
            .'the sound without its picture out of another copy.'],
        [new Violations\VideoPieces,
            'Pictures are kept whole, so a video cannot be cut into pieces here; take its sound alone, or leave the pieces out.'],
        [new Violations\VideoLength,
            'Beside a picture each sound track stays as long as it is; leave the length to the sound.'],
        [new Violations\NotAlike(track: 4),
            'Track 4 cannot be joined with the others: tracks that become one sound must be of one rate and all be decodable.'],
        [new Violations\NoLength(name: 'lift.wav'),
            'lift.wav has no picture whose length is known, so its sound cannot be made as long as that; leave the length to the sound.'],
        [new Violations\RateBeyond(rate: 1_000_000, nearest: [384_000]),
            'A rate of 1,000,000 Hz cannot be made; choose one between 4,000 and 384,000 Hz.'],
        [new Violations\Rate(format: 'Opus', rate: 44_100, nearest: [48_000]),
            'Opus has no rate of 44,100 Hz; the nearest it has: 48,000 Hz.'],
        [new Violations\BitDepth(format: 'FLAC', bits: 32, nearest: [24]),
            'FLAC is not made with 32 bits; the nearest it has: 24 bits.'],
        [new Violations\BitDepth(format: 'MP3', bits: 16),
            'MP3 has no bit depth to choose, so it cannot be made with 16 bits; leave the bits out.'],
        [new Violations\BitRate('WAV', 128, 48_000, 2),
            'WAV has no bit rate to choose, so it cannot be made with 128 kbit/s; leave the bit rate out.'],
        [new Violations\BitRate(format: 'MP3', kbps: 500, rate: 48_000, channels: 1, nearest: [320]),
            'MP3 is not made with 500 kbit/s at 48,000 Hz and 1 channel; the nearest it has: 320 kbit/s.'],
        [new Violations\VariableRate(format: 'AAC'),
            'AAC has no variable rate here; choose a bit rate instead, or MP3 or Vorbis.'],
        [new Violations\RateMode(format: 'Vorbis', mode: 'constant', nearest: ['average']),
            'Vorbis is not made here with a constant bit rate; it has: average.'],
        [new Violations\RateMode(format: 'WAV', mode: 'average'),
            'WAV has no bit rate to choose; leave out how it is held.'],
        [new Violations\EncoderSetting(format: 'WAV', setting: 'levels of compression'),
            'WAV has no choice of levels of compression; leave it out, or choose another format.'],
        [new Violations\Compression(format: 'FLAC', level: 9, nearest: [8]),
            'FLAC has no level of compression 9; the nearest it has: 8.'],
        [new Violations\LengthOfPieces(length: '0:30'),
            'A length of 0:30 can be given to the whole or to one piece that lasts at least as long, not to several; leave the length to '
            .'the sound, or leave the end of the piece open.'],
        [new Violations\NameField(field: '{colour}', nearest: ['stem', 'title']),
            'There is no field {colour} for names; these are there: {stem} {title}.'],
    ];
}

it('says each refusal in a sentence that tells what to do', function (Violation $violation, string $says) {
    $refusal = $violation->at('/shelf/lift.mp4');
    expect($refusal)->toBeInstanceOf(CannotPlan::class)->and($refusal->getMessage())->toBe($says)->and($refusal->path)
        ->toBe('/shelf/lift.mp4')
        ->and($refusal->code())->toBe($violation instanceof OfFormat ? 'not-offered' : 'cannot-plan')
        ->and($refusal->violation())->toBe($violation)->and($says)->toMatch('/^[^\s].*\.$/')->not->toContain('  ');
})->with(violations(...));

it('has words for every rule', function () {
    $said = array_map(fn (array $case): string => ViolationKinds::mapper()->word($case[0]), violations());
    expect(array_diff(ViolationKinds::mapper()->all(), $said))->toBe([]);
});

it('says levels as they are meant', function (string $written, string $says) {
    expect(PlanWords::level(LevelTarget::parse($written)))->toBe($says);
})->with([
    ['gain:0', '+0.0 dB'], ['gain:-6.25', '-6.2 dB'], ['peak:0', 'peak at 0.0 dBFS'], ['peak:90%', 'peak at -0.9 dBFS'],
    ['rms:-20', 'RMS at -20.0 dBFS, true peak at most -1.0 dBFS'], ['rms:-20:-3', 'RMS at -20.0 dBFS, true peak at most -3.0 dBFS'],
    ['lufs:-23', 'loudness at -23.0 LUFS, true peak at most -1.0 dBFS'],
]);
