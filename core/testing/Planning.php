<?php

declare(strict_types=1);

namespace Octavox\Core\Testing;

use Octavox\Core\Make\SourceInspector;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Plan\OrderLine;
use Octavox\Core\Plan\Plan;
use Octavox\Core\Plan\PlanWords;
use Octavox\Core\Reading\Reading;

/** Orders of one source, planned. */
final class Planning
{
    public static function plan(Reading $source, OutputSpec $spec): Plan
    {
        return self::plans($source, $spec)[0];
    }

    /** @return list<Plan> */
    public static function plans(Reading $source, OutputSpec $spec): array
    {
        $planned = SourceInspector::plan([new OrderLine($source)], $spec)[0];

        return $planned->refusal === null ? $planned->plans : throw $planned->refusal;
    }

    /** @return list<string> */
    public static function steps(Plan $plan): array
    {
        return PlanWords::steps($plan);
    }

    /** The plan as it comes out of a database or another process. */
    public static function stored(Plan $plan): Plan
    {
        return Plan::fromArray((array) json_decode($plan->toJson(), true));
    }
}
