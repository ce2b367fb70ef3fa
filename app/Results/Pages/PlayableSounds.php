<?php

declare(strict_types=1);

namespace App\Results\Pages;

use App\Files\MediaType;
use App\Results\Models\Result;
use App\Results\Values\PlayableSound;
use Octavox\Core\Plan\PlanUnreadable;

/** What can be heard beside a receipt. */
final class PlayableSounds
{
    /**
     * @return list<PlayableSound> the source as it was and each sound of the result
     *
     * @throws PlanUnreadable
     */
    public static function find(Result $result): array
    {
        $plan = $result->plannedAs();
        $sounds = [];
        $first = $plan->sound();
        if ($result->source_id !== null && $first !== null) {
            $sounds[] = new PlayableSound('Before', '', '', route('track.hear', [$result->source_id, $first->track]));
        }
        $type = MediaType::name($plan->target->container, $result->isVideo());
        foreach (array_keys($plan->sounds) as $index) {
            $title = count($plan->sounds) === 1 ? 'After' : 'After, sound track '.($index + 1);
            // A video plays by itself; its sound alone is for the browser that shows the picture and cannot decode the sound.
            $sounds[] = new PlayableSound($title, $result->isVideo() ? '' : route('result.media', $result), $type,
                route('result.hear', [$result, $index + 1]));
        }

        return $sounds;
    }
}
