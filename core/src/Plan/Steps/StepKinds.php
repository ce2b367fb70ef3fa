<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Steps;

use Octavox\Core\Json\KindMapper;

/** The registry: the word that stands for each in JSON. */
final class StepKinds
{
    private const BY_WORD = [
        'copy-picture' => CopyPicture::class,
        'copy-sound' => CopySound::class,
        'cut-exact' => CutExact::class,
        'cut-moved' => CutMoved::class,
        'piece' => Piece::class,
        'pieces' => Pieces::class,
        'whole-frames' => WholeFrames::class,
        'late-start' => LateStart::class,
        'enough-rate' => EnoughRate::class,
        'decode' => Decode::class,
        'silence-before' => SilenceBefore::class,
        'drop-before' => DropBefore::class,
        'silence-after' => SilenceAfter::class,
        'drop-after' => DropAfter::class,
        'route' => Route::class,
        'mix' => Mix::class,
        'label' => Label::class,
        'de-emphasis' => Deemphasis::class,
        'fade' => Fade::class,
        'level' => Level::class,
        'resample' => Resample::class,
        'dither' => Dither::class,
        'lossy-again' => LossyAgain::class,
        'encode' => Encode::class,
        'drop-chapters' => DropChapters::class,
        'drop-tags' => DropTags::class,
        'copy-auxiliary' => CopyAuxiliary::class,
        'drop-auxiliary' => DropAuxiliary::class,
        'filled-silence' => FilledSilence::class,
        'assumed-places' => AssumedPlaces::class,
        'raised-rate' => RaisedRate::class,
        'doubtful-sound' => DoubtfulSound::class,
    ];

    /** @return KindMapper<StepKind> */
    public static function mapper(): KindMapper
    {
        /** @var KindMapper<StepKind> $mapper */
        $mapper = new KindMapper(self::BY_WORD);

        return $mapper;
    }
}
