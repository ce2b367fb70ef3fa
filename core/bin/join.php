<?php

declare(strict_types=1);

// Writes the files of one recording as one: JSON {paths, to} on the standard input; answers with {samples, sha256}.

use Octavox\Core\Json\Fields;
use Octavox\Core\Make\JoinedRecording;
use Octavox\Core\Parallel\ChildScript;

require __DIR__.'/autoload.php';
require __DIR__.'/guard.php';

exit(ChildScript::run(function (Fields $asked): array {
    $paths = array_values(array_filter($asked->list('paths'), is_string(...)));

    return ['samples' => $paths === [] ? 0 : JoinedRecording::write($paths, $asked->text('to')),
        'sha256' => (string) hash_file('sha256', $asked->text('to'))];
}));
