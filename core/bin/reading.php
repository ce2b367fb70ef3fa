<?php

declare(strict_types=1);

// Reads one source: JSON {path, stated, cover} on the standard input; answers with {reading, content, titles}: of a video disc the numbers
// of all its titles, the first of which is read. A cover is written to the path that is named.

use Octavox\Core\Bytes\ContentMark;
use Octavox\Core\Bytes\FileSink;
use Octavox\Core\Disc\DiscTitle;
use Octavox\Core\Disc\StatedTitle;
use Octavox\Core\Disc\VideoDisc;
use Octavox\Core\Json\Fields;
use Octavox\Core\Parallel\ChildScript;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Reading\SourceBytes;
use Octavox\Core\Reading\Stated;

require __DIR__.'/autoload.php';
require __DIR__.'/guard.php';

exit(ChildScript::run(function (Fields $asked): array {
    $stated = Stated::parse($asked->textOrNull('stated'));
    $titles = $stated === null ? array_map(fn (DiscTitle $title): int => $title->number, VideoDisc::titlesIn($asked->text('path'))) : [];
    $reading = Reader::read($asked->text('path'), $titles === [] ? $stated : new StatedTitle($titles[0]));
    $cover = $asked->textOrNull('cover');
    if ($cover !== null) {
        $sink = FileSink::create($cover);
        $sink->write($reading->tags->cover->bytes ?? '');
        $sink->close();
    }

    return ['reading' => $reading->toArray(), 'titles' => $titles,
        'content' => ContentMark::compute(SourceBytes::open($reading->path, $reading->stated))
            .($reading->stated instanceof StatedTitle ? ' '.$reading->stated : '')];
}));
