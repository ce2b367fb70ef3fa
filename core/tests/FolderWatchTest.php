<?php

declare(strict_types=1);

use Octavox\Core\Bytes\FolderWatch;

it('tells what comes, grows, is renamed and goes in the folders that are watched, and nothing else', function () {
    $folder = sys_get_temp_dir().'/octavox-events-'.getmypid();
    mkdir("$folder/below", recursive: true);
    $events = new FolderWatch;
    expect($events->watch($folder))->toBeTrue()->and($events->watch("$folder/nowhere"))->toBeFalse();
    $told = function () use ($events, $folder): array {
        $paths = str_replace("$folder/", '', $events->wait(0));
        sort($paths);

        return $paths;
    };
    expect($told())->toBe([]);
    file_put_contents("$folder/take ä.wav", 'a');
    file_put_contents("$folder/below/unseen.wav", 'a');
    expect($told())->toBe(['take ä.wav']);
    rename("$folder/take ä.wav", "$folder/take 2.wav");
    expect($told())->toBe(['take 2.wav', 'take ä.wav'])->and($told())->toBe([]);
    // Told after it was told already, and of a folder that was watched late.
    $events->watch("$folder/below");
    unlink("$folder/take 2.wav");
    file_put_contents("$folder/below/unseen.wav", 'b', FILE_APPEND);
    expect($told())->toBe(['below/unseen.wav', 'take 2.wav'])->and($events->hasLost())->toBeFalse();
    unlink("$folder/below/unseen.wav");
    rmdir("$folder/below");
    expect($told())->toContain('below');
    rmdir($folder);
});

it('says so when more happened than can be told', function () {
    $most = (int) file_get_contents('/proc/sys/fs/inotify/max_queued_events');
    $folder = sys_get_temp_dir().'/octavox-many-'.getmypid();
    mkdir($folder);
    $events = new FolderWatch;
    $events->watch($folder);
    // Each makes two events that differ from the one before, so none is left out as a repetition.
    for ($time = 0; $time <= $most; $time++) {
        touch("$folder/".($time % 2));
    }
    expect($events->wait(0))->not->toBe([])->and($events->hasLost())->toBeTrue()->and($events->hasLost())->toBeFalse();
    array_map(unlink(...), glob("$folder/*"));
    rmdir($folder);
});
