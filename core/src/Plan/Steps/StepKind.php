<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Steps;

/**
 * What a step of a plan does, or what somebody should know of it. {@see \Octavox\Core\Plan\PlanWords} says each in words.
 *
 * @phpstan-sealed (CopyPicture|CopySound|CutExact|CutMoved|Piece|Pieces|WholeFrames|LateStart|EnoughRate|Decode|SilenceBefore|DropBefore|
 *     SilenceAfter|DropAfter|Route|Mix|Label|Deemphasis|Fade|Level|Resample|Dither|LossyAgain|Encode|DropChapters|DropTags|CopyAuxiliary|
 *     DropAuxiliary|FilledSilence|AssumedPlaces|RaisedRate|DoubtfulSound)
 */
interface StepKind {}
