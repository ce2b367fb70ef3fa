<?php

declare(strict_types=1);

// Carries out one plan: JSON {plan, token, originals, journal, bins} on the standard input; answers with a result,
// and notes which file it is
// just before that gets its name. The token makes the temporary name.

use Octavox\Core\Json\Fields;
use Octavox\Core\Make\Journal;
use Octavox\Core\Make\Maker;
use Octavox\Core\Make\Originals;
use Octavox\Core\Make\Placing;
use Octavox\Core\Parallel\ChildMessage;
use Octavox\Core\Parallel\ChildScript;
use Octavox\Core\Parallel\LineProgress;
use Octavox\Core\Plan\Plan;

require __DIR__.'/autoload.php';
require __DIR__.'/guard.php';

exit(ChildScript::run(function (Fields $asked): array {
    $plan = Plan::fromArray($asked->map('plan'));
    $originals = Originals::of([$plan->source->path,
        ...array_filter($asked->isNull('originals') ? [] : $asked->list('originals'), is_string(...))]);
    $path = $asked->textOrNull('journal');
    $journal = $path === null ? null : new Journal($path);
    $note = function (Placing $placing) use ($journal): void {
        fwrite(STDOUT, ChildMessage::noteLine($placing->toArray()));
        $journal?->write($placing);
    };

    return (new Maker(new LineProgress(STDOUT)))->make($plan, $asked->textOrNull('token') ?? 'alone', $originals, $note,
        array_values(array_filter($asked->isNull('bins') ? [] : $asked->list('bins'), is_string(...))))->toArray();
}));
