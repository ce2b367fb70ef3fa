<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Failure;

/**
 * What becomes of one sound of a source, alone in a file or beside a picture, with the least change that gives what is asked: packets that
 * can stay as they are stay.
 */
final readonly class SoundPlanner
{
    public function __construct(private SoundRequest $request) {}

    /**
     * One for each result: several where channels or pieces become results of their own.
     *
     * @param  non-empty-list<int>  $numbers  of the tracks whose channels are taken together
     * @return non-empty-list<SoundDraft>
     *
     * @throws Failure why it is not possible
     */
    public function drafts(array $numbers): array
    {
        $sound = SoundContext::taking($this->request, $numbers);

        return array_map(fn (Shape $shape): SoundDraft => self::draft($sound, $shape), (new SoundPieces($sound))->shapes());
    }

    /** @throws Failure */
    private static function draft(SoundContext $sound, Shape $shape): SoundDraft
    {
        $layout = $shape->routing->layout ?? $sound->from->layout;
        $layout = $layout->name() === $sound->from->layout->name() ? $sound->from->layout : $layout;
        $sound->encoder->requireBitDepth($sound->spec->bitDepth);
        $settings = $sound->encoder->settings($sound->spec);
        $shape->mix($sound->from->layout, $layout);
        $kept = new KeptSound($sound);
        $plan = $sound->video === null ? $kept->inFile($shape, $layout) : $kept->besidePicture($shape);

        return $plan === null ? (new RemadeSound($sound))->draft($shape, $layout, $settings) : $kept->draft($plan);
    }
}
