<?php

declare(strict_types=1);

// Finds where the packets around marks begin and end: JSON {path, stated, queries} on the standard input, queries as BordersQuery::key()
// writes
// them; answers with {borders: {query: …}}.

use Octavox\Core\Json\Fields;
use Octavox\Core\Media\BordersQuery;
use Octavox\Core\Parallel\ChildScript;
use Octavox\Core\Reading\BorderFinder;
use Octavox\Core\Reading\Opener;
use Octavox\Core\Reading\Stated;

require __DIR__.'/autoload.php';
require __DIR__.'/guard.php';

exit(ChildScript::run(function (Fields $asked): array {
    $source = Opener::open($asked->text('path'), Stated::parse($asked->textOrNull('stated')));
    $borders = [];
    foreach (array_filter($asked->list('queries'), is_string(...)) as $key) {
        $query = BordersQuery::ofKey($key);
        if ($query !== null) {
            $borders[$key] = BorderFinder::find($source, $query)->toArray();
        }
    }

    return ['borders' => (object) $borders];
}));
