<?php

declare(strict_types=1);

use App\Processes\QueueSignal;
use App\Watching\Models\WatchedFolder;
use App\Watching\Queries\FolderContents;
use App\Work\WorkKind;
use App\Work\WorkSignal;

it('rings for the queue that gets a job, and for no other', function () {
    $reader = new QueueSignal;
    $maker = new QueueSignal;
    $reader->listen();
    $maker->listen();
    config(['queue.default' => 'database']);
    app(WorkSignal::class)->announce(WorkKind::Reading);
    expect($reader->wait('reading', 60.0, 60.0))->toBeTrue()
        ->and($maker->wait('making', 0.05, 0.05))->toBeFalse()
        ->and($reader->wait('reading', 0.05, 0.05))->toBeFalse();
});

it('looks into a watched folder only when something happened there', function () {
    mkdir($this->home.'/shelf/in/deep', recursive: true);
    $standing = new WatchedFolder(['shelf' => 'Videos', 'folder' => 'in', 'nested' => true]);
    $standing->id = 1;
    $folders = new FolderContents;
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
