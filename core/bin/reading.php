<?php

declare(strict_types=1);

// Reads one source: JSON {path, stated, cover} on the standard input; answers with {reading, content}. A cover is written to the path that is named.

use Octavox\Core\Bytes\ContentMark;
use Octavox\Core\Bytes\FileSink;
use Octavox\Core\Json\Fields;
use Octavox\Core\Parallel\ChildScript;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Reading\Stated;

require __DIR__.'/autoload.php';
require __DIR__.'/guard.php';

exit(ChildScript::run(function (Fields $asked): array {
    $reading = Reader::read($asked->text('path'), Stated::parse($asked->textOrNull('stated')));
    $cover = $asked->textOrNull('cover');
    if ($cover !== null) {
        $sink = FileSink::create($cover);
        $sink->write($reading->tags->cover->bytes ?? '');
        $sink->close();
    }

    return ['reading' => $reading->toArray(), 'content' => ContentMark::of($reading->path)];
}));
