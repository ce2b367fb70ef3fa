<?php

declare(strict_types=1);

// Whether two sources hold the same bytes: JSON {path, stated, other, other_stated} on the standard input; answers with {same}.

use Octavox\Core\Bytes\ContentMark;
use Octavox\Core\Json\Fields;
use Octavox\Core\Parallel\ChildScript;
use Octavox\Core\Reading\SourceBytes;
use Octavox\Core\Reading\Stated;

require __DIR__.'/autoload.php';
require __DIR__.'/guard.php';

exit(ChildScript::run(fn (Fields $asked): array => ['same' => ContentMark::isSame(
    SourceBytes::open($asked->text('path'), Stated::parse($asked->textOrNull('stated'))),
    SourceBytes::open($asked->text('other'), Stated::parse($asked->textOrNull('other_stated'))))]));
