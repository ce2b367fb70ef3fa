<?php

declare(strict_types=1);

// Whether two files hold the same bytes: JSON {path, other} on the standard input; answers with {same}.

use Octavox\Core\Bytes\ContentMark;
use Octavox\Core\Json\Fields;
use Octavox\Core\Parallel\ChildScript;

require __DIR__.'/autoload.php';
require __DIR__.'/guard.php';

exit(ChildScript::run(fn (Fields $asked): array => ['same' => ContentMark::isSame($asked->text('path'), $asked->text('other'))]));
