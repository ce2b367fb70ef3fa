<?php

declare(strict_types=1);

$home = env('OCTAVOX_HOME') ?: storage_path('app/octavox');

return [
    // Everything that Octavox keeps: database, uploads, sources, results.
    'home' => $home,

    // Folders of the machine that are opened to Octavox, as NAME=PATH, several separated by a colon.
    'shelves' => env('OCTAVOX_SHELVES', ''),

    // Names of those that results may be put on, several separated by a colon.
    'writable' => env('OCTAVOX_WRITABLE', ''),

    // Where results go.
    'results' => env('OCTAVOX_RESULTS') ?: $home.'/results',

    // The port that browsers ask at, and names by which they may, beside those of this machine.
    'port' => (int) env('OCTAVOX_PORT', 0),
    'names' => env('OCTAVOX_NAMES', ''),

    // Where the catalogue of albums and recordings answers.
    'catalogue' => env('OCTAVOX_CATALOGUE') ?: 'http://127.0.0.1:'.((int) env('OCTAVOX_PORT', 8080) + 1),

    // The largest upload, in bytes.
    'largest_upload' => (int) env('OCTAVOX_LARGEST_UPLOAD', 200 * 1024 ** 3),

    // Hours after its last part at which an unfinished upload is thrown away.
    'upload_hours' => (int) env('OCTAVOX_UPLOAD_HOURS', 24),

    // Settings that the environment says, so that the page of settings cannot.
    'fixed' => array_keys(array_filter(['upload_gigabytes' => env('OCTAVOX_LARGEST_UPLOAD'), 'upload_hours' => env('OCTAVOX_UPLOAD_HOURS')])),

    // What files that are put outside of the home are not allowed: the umask of whoever started Octavox.
    'umask' => octdec((string) (env('OCTAVOX_UMASK') ?: sprintf('%04o', umask()))),

    // How often a result whose worker died is begun again by itself.
    'attempts' => 3,
];
