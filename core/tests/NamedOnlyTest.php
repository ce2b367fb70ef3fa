<?php

declare(strict_types=1);

use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\CodecNotDecodable;
use Octavox\Core\Failure;
use Octavox\Core\Media\Codec;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Tag\ApeTag;
use Octavox\Core\Tag\TagField;
use Octavox\Core\Tag\Tags;
use Octavox\Core\Tests\Support\Scratch;

/** @return array<string, array{string, array{string, Codec, int, int, int}}> bytes, and container, codec, rate, channels, samples */
function namedOnly(): array
{
    $fill = str_repeat("\x5A", 400);
    $dff = 'FRM8'.pack('J', 900).'DSD '.'FVER'.pack('J', 4)."\1\5\0\0".'PROP'.pack('J', 46).'SND '.'FS  '.pack('JN', 4, 2_822_400)
        .'CHNL'.pack('Jn', 10, 2).'SLFTSRGT'.'CMPR'.pack('J', 5).'DSD '."\0\0".'DSD '.pack('J', 400).$fill;

    return [
        'ape 3.99' => ['MAC '.pack('vvVVVVVVV', 3990, 0, 52, 24, 0, 0, 0, 0, 0).str_repeat("\0", 16).pack('vvVVVvvV', 2000, 0, 73_728,
            1000, 3, 16, 2, 44_100)
            .$fill, ['ape', Codec::Ape, 44_100, 2, 2 * 73_728 + 1000]],
        'ape 3.80' => ['MAC '.pack('vvvvVVVVV', 3800, 2000, 0, 1, 48_000, 0, 0, 5, 77).$fill, ['ape', Codec::Ape, 48_000, 1,
            4 * 9216 + 77]],
        'tta' => ['TTA1'.pack('vvvVVV', 1, 2, 24, 96_000, 123_456, 0).$fill, ['tta', Codec::Tta, 96_000, 2, 123_456]],
        'tta behind ID3' => ["ID3\3\0\0\0\0\0\x0A".str_repeat("\0", 10).'TTA1'.pack('vvvVVV', 1, 1, 16, 8000, 99, 0).$fill, ['tta',
            Codec::Tta, 8000, 1, 99]],
        // 300,000 samples as seven bits a byte: 0x92 0xA7 0x60; the rate 48,000, two channels
        'musepack 8' => ['MPCK'.'SH'."\x0F"."\0\0\0\0\x08"."\x92\xA7\x60"."\0".pack('n', 1 << 13 | 1 << 4).$fill, ['musepack',
            Codec::Musepack, 48_000, 2, 300_000]],
        'musepack 7' => ["MP+\x07".pack('VV', 100, 3 << 16).$fill, ['musepack', Codec::Musepack, 32_000, 2, 115_200]],
        'dsf' => ['DSD '.pack('PPP', 28, 900, 0).'fmt '.pack('PVVVVVVPVV', 52, 1, 0, 2, 2, 5_644_800, 1, 1_000_000, 4096, 0).$fill,
            ['dsd', Codec::Dsd, 5_644_800, 2, 1_000_000]],
        'dsdiff' => [$dff, ['dsd', Codec::Dsd, 2_822_400, 2, 1600]],
    ];
}

it('names what nobody here decodes, with its facts', function (string $bytes, array $facts) {
    $reading = Reader::read(Scratch::write('a.bin', $bytes));
    $sound = $reading->sound()[0];
    expect([$reading->container, $sound->sound->codec, $sound->sound->rate, $sound->sound->channels(), $sound->timeline->samples()])
        ->toBe($facts);
    [$status, $said] = octavox('make', $reading->path, '--into', Scratch::folder(), '--format', 'wav', '--json');
    expect($status)->not->toBe(0)->and($said['error']['code'])->toBe('codec-not-decodable')->and($said['error']['message'])
        ->toContain(CodecModules::describe($sound->sound));
})->with(fn (): array => namedOnly());

it('reads their tags', function () {
    foreach (['ape 3.99', 'tta', 'musepack 8'] as $name) {
        $tags = ApeTag::write(Tags::none()->with(TagField::Title, 'Gate march')->with(TagField::Artist, 'Wrenfield Brass'));
        expect(Reader::read(Scratch::write('a.bin', namedOnly()[$name][0].$tags))->tags->values())
            ->toMatchArray(['title' => 'Gate march', 'artist' => 'Wrenfield Brass']);
    }
});

it('refuses damaged heads in a sentence', function () {
    mt_srand(3);
    foreach (namedOnly() as [$bytes]) {
        for ($time = 0; $time < 60; $time++) {
            $damaged = mt_rand(0, 3) === 0 ? substr($bytes, 0, mt_rand(0, 120)) : $bytes;
            for ($change = 0; $change < 4 && $damaged !== ''; $change++) {
                $damaged[mt_rand(0, min(120, strlen($damaged) - 1))] = chr(mt_rand(0, 255));
            }
            try {
                $reading = Reader::read(Scratch::write('a.bin', $damaged));
                expect($reading->sound()[0]->timeline->samples())->toBeGreaterThanOrEqual(0);
            } catch (Failure $failure) {
                expect($failure->getMessage())->not->toBe('');
            }
        }
    }
    expect(CodecNotDecodable::named('DSD')->getMessage())->toContain('DSD');
});
