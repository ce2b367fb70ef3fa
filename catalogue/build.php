<?php

declare(strict_types=1);

// Makes catalogue.json and its covers anew of the demo data in a folder: php -d ffi.enable=1 catalogue/build.php FOLDER

use Octavox\Core\Analysis\Fingerprint;
use Octavox\Core\Reading\Opener;

require __DIR__.'/../core/bin/autoload.php';

$folder = $argv[1] ?? exit("The folder of the demo data is missing.\n");
$of = function (string $name) use ($folder): string {
    $source = Opener::open("$folder/$name");

    return base64_encode(pack('N*', ...Fingerprint::compute($source, $source->sound()[0])));
};
$cover = function (string $id, array $colours, string $words): void {
    $image = imagecreatetruecolor(600, 600) ?: exit(1);
    foreach ($colours as $place => [$red, $green, $blue]) {
        imagefilledrectangle($image, 0, $place * 200, 600, $place * 200 + 200, (int) imagecolorallocate($image, $red, $green, $blue));
    }
    imagefilledellipse($image, 300, 300, 320, 320, (int) imagecolorallocate($image, 245, 238, 225));
    imagestring($image, 5, 190, 292, $words, (int) imagecolorallocate($image, 35, 31, 32));
    is_dir(__DIR__.'/covers') || mkdir(__DIR__.'/covers');
    imagepng($image, __DIR__."/covers/$id.png");
};
$cover('steam-day', [[106, 29, 75], [58, 110, 100], [176, 110, 40]], 'STEAM DAY');
$cover('reopening', [[64, 98, 108], [96, 122, 82], [122, 38, 72]], 'THE REOPENING');

$track = fn (string $title, string $performer, int $number): array => ['title' => $title, 'performer' => $performer,
    'isrc' => sprintf('ZZWRN26%05d', $number)];
$steam = [$track('Gate march', 'Wrenfield Brass', 1), $track('Lift waltz', 'Wrenfield Brass', 2), $track('Song for six boats',
    'Hetty Marlowe', 3)];
$recording = fn (string $title, string $artist, string $album, string $number, string $cover, string $file): array => ['title' => $title,
    'artist' => $artist, 'album' => $album, 'album_artist' => 'Wrenfield Brass', 'track' => $number, 'year' => '2026', 'genre' => 'Brass',
    'cover' => $cover, 'fingerprint' => $of($file)];
file_put_contents(__DIR__.'/catalogue.json', json_encode([
    'albums' => [
        ['album' => 'Steam day', 'album_artist' => 'Wrenfield Brass', 'year' => '2026', 'genre' => 'Brass', 'cover' => 'steam-day',
            'offsets' => [150, 525, 825], 'leadout' => 1125, 'tracks' => $steam],
        // Another pressing, a little later.
        ['album' => 'Steam day (second edition)', 'album_artist' => 'Wrenfield Brass', 'year' => '2027', 'genre' => 'Brass',
            'cover' => 'steam-day', 'offsets' => [182, 560, 860], 'leadout' => 1160, 'tracks' => $steam],
    ],
    'recordings' => [
        $recording('Evening rehearsal', 'Wrenfield Brass', 'The reopening', '4', 'reopening', 'Evening rehearsal.mp3'),
        $recording('Lift waltz (opening ceremony)', 'Wrenfield Brass', 'The reopening', '1', 'reopening', 'Opening ceremony.mkv'),
        $recording('Tour of the lift', 'M. Harrow', 'The reopening', '2', 'reopening', 'Tour of the lift.mp4'),
    ],
], JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_PRETTY_PRINT)."\n");
