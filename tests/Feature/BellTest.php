<?php

declare(strict_types=1);

use App\Jobs\ReadSource;
use App\Models\StandingOrder;
use App\Processes\Bell;
use App\Queries\WatchedFolder;

it('rings for the queue that gets a job, and for no other', function () {
    $reader = new Bell;
    $maker = new Bell;
    $reader->listen();
    $maker->listen();
    config(['queue.default' => 'database']);
    ReadSource::dispatch(1);
    expect($reader->wait('reading', 60.0, 60.0))->toBeTrue()
        ->and($maker->wait('making', 0.05, 0.05))->toBeFalse()
        ->and($reader->wait('reading', 0.05, 0.05))->toBeFalse();
});

it('looks into a watched folder only when something happened there', function () {
    mkdir($this->home.'/shelf/in/deep', recursive: true);
    $standing = new StandingOrder(['shelf' => 'Videos', 'folder' => 'in', 'nested' => true]);
    $standing->id = 1;
    $folders = new WatchedFolder;
    expect($folders->isStirred($standing))->toBeTrue();
    $folders->files($standing);
    expect($folders->isStirred($standing))->toBeFalse();
    file_put_contents($this->home.'/shelf/in/deep/take.wav', 'x');
    expect($folders->isStirred($standing))->toBeTrue();
    $folders->files($standing);
    expect($folders->isStirred($standing))->toBeFalse();
    $standing->nested = false;
    expect($folders->isStirred($standing))->toBeTrue();
});
