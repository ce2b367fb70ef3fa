<?php

declare(strict_types=1);

/*
 * A small catalogue of made-up albums and recordings, which stands for a real one: HTTP on the loopback, JSON. It runs by itself
 * (`php -S 127.0.0.1:PORT catalogue/server.php`) and knows nothing of the application.
 *
 *   GET  /disc?offsets=150,22650&leadout=58650   albums whose table of contents is that, or nearly: sectors, 75 a second, 150 before the
 * first   POST /sound                                   recordings that sound like the fingerprint in the body (numbers of 32 bits,
 * big-endian)   GET  /words?q=…                               recordings and albums by words   GET  /cover/ID
 *   a picture
 *
 * All but the last answer {"candidates": [{"confidence", "fields": {…}, "tracks": [{"title", "performer", "isrc"}], "cover"}]}.
 */

use Octavox\Core\Analysis\Fingerprint;

require __DIR__.'/../core/bin/autoload.php';

/**
 * @var array{
 *     albums: list<array{album: string, offsets: list<int>, leadout: int, tracks: list<mixed>, cover: ?string}>,
 *     recordings: list<array{title: string, artist: string, album: string, fingerprint: string, cover: ?string}>
 * } $data
 */
$data = json_decode((string) file_get_contents(__DIR__.'/catalogue.json'), true, 512, JSON_THROW_ON_ERROR);
/** @var array{REQUEST_URI: string, REQUEST_METHOD: string} $asked */
$asked = $_SERVER;
/** @var array{offsets?: string, leadout?: string, q?: string} $query */
$query = array_filter($_GET, is_string(...));
$path = (string) parse_url($asked['REQUEST_URI'], PHP_URL_PATH);

/** @param  array<string, mixed>  $album */
$ofAlbum = fn (array $album, float $confidence): array => ['confidence' => round($confidence, 3), 'fields' => array_intersect_key($album,
    array_flip(['album', 'album_artist', 'year', 'genre'])), 'tracks' => $album['tracks'], 'cover' => $album['cover']];
/** @param  array<string, mixed>  $recording */
$ofRecording = fn (array $recording, float $confidence): array => ['confidence' => round($confidence, 3), 'fields' => array_intersect_key(
    $recording, array_flip(['title', 'artist', 'album', 'album_artist', 'track', 'year', 'genre'])), 'tracks' => [],
    'cover' => $recording['cover']];

$found = [];
if ($path === '/disc') {
    $offsets = array_map(intval(...), explode(',', $query['offsets'] ?? ''));
    $leadout = (int) ($query['leadout'] ?? 0);
    foreach ($data['albums'] as $album) {
        $differences = count($album['offsets']) !== count($offsets) ? [PHP_INT_MAX]
            : array_map(fn (int $one, int $other): int => abs($one - $other), [...$album['offsets'], $album['leadout']], [...$offsets,
                $leadout]);
        // Another pressing may begin its tracks a little elsewhere.
        if (max($differences) <= 300) {
            $found[] = $ofAlbum($album, 1 - max($differences) / 600);
        }
    }
} elseif ($path === '/sound' && $asked['REQUEST_METHOD'] === 'POST') {
    $heard = array_values(unpack('N*', substr((string) file_get_contents('php://input'), 0, 100_000)) ?: []);
    foreach ($data['recordings'] as $recording) {
        $difference = Fingerprint::difference(array_values(unpack('N*', (string) base64_decode($recording['fingerprint'], true)) ?: []),
            $heard);
        // The authors call two sounds the same up to 0.35.
        if ($difference < 0.35) {
            $found[] = $ofRecording($recording, 1 - $difference / 0.5);
        }
    }
} elseif ($path === '/words') {
    $words = preg_split('/[^\p{L}\p{N}]+/u', mb_strtolower($query['q'] ?? ''), -1, PREG_SPLIT_NO_EMPTY) ?: [];
    foreach ($data['recordings'] as $recording) {
        $own = preg_split('/[^\p{L}\p{N}]+/u', mb_strtolower($recording['title'].' '.$recording['artist'].' '.$recording['album']), -1,
            PREG_SPLIT_NO_EMPTY) ?: [];
        $share = $words === [] ? 0.0 : count(array_intersect(array_unique($words), $own)) / count(array_unique($words));
        if ($share >= 0.5) {
            $found[] = $ofRecording($recording, 0.8 * $share);
        }
    }
} elseif (preg_match('~^/cover/([a-z0-9-]{1,40})$~', $path, $match) === 1 && is_file(__DIR__.'/covers/'.$match[1].'.png')) {
    header('Content-Type: image/png');
    readfile(__DIR__.'/covers/'.$match[1].'.png');

    return;
} else {
    http_response_code(404);
    header('Content-Type: application/json');
    echo '{"error": "There is nothing here."}';

    return;
}
usort($found, fn (array $one, array $other): int => $other['confidence'] <=> $one['confidence']);
header('Content-Type: application/json');
echo json_encode(['candidates' => array_slice($found, 0, 10)], JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_PRESERVE_ZERO_FRACTION);
