<?php

declare(strict_types=1);

// Holds a file against what a destination accepts: JSON {path, destination} on the standard input, the destination as a document; answers
// with {refusals: sentences, seconds, container, tags}.

use Octavox\Core\Analysis\Analyzer;
use Octavox\Core\Codec\Codecs;
use Octavox\Core\Destination\Destination;
use Octavox\Core\Destination\Facts;
use Octavox\Core\Destination\Rejection;
use Octavox\Core\Json\Fields;
use Octavox\Core\Parallel\ChildScript;
use Octavox\Core\Reading\Opener;
use Octavox\Core\Reading\Reader;

require __DIR__.'/autoload.php';
require __DIR__.'/guard.php';

exit(ChildScript::run(function (Fields $asked): array {
    $reading = Reader::read($asked->text('path'));
    $document = $asked->all()['destination'] ?? null;
    $destination = Destination::fromArray(is_array($document) ? $document : []);
    $sound = $reading->sound()[0] ?? null;
    $measured = null;
    if ($destination->limits->mostLufs !== null && $sound?->sound !== null && Codecs::canDecode($sound->sound)) {
        $opened = Opener::open($reading->path);
        $measured = Analyzer::to($opened, $opened->sound()[0]);
    }

    return ['refusals' => array_map(fn (Rejection $one): string => $one->says, $destination->refuses(Facts::ofReading($reading,
        $measured))),
        'seconds' => $reading->seconds, 'container' => $reading->container, 'tags' => (object) $reading->tags->values()];
}));
