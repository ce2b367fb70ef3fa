<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

/** What a step of a plan does, or what somebody should know of it. {@see PlanWords} says each in words. */
enum StepKind: string
{
    case CopyPicture = 'copy-picture';
    case CopySound = 'copy-sound';
    case CutExact = 'cut-exact';
    case CutMoved = 'cut-moved';
    case Piece = 'piece';
    case Pieces = 'pieces';
    case WholeFrames = 'whole-frames';
    case LateStart = 'late-start';
    case EnoughRate = 'enough-rate';
    case Decode = 'decode';
    case SilenceBefore = 'silence-before';
    case DropBefore = 'drop-before';
    case SilenceAfter = 'silence-after';
    case DropAfter = 'drop-after';
    case Route = 'route';
    case Mix = 'mix';
    case Label = 'label';
    case Deemphasis = 'de-emphasis';
    case Fade = 'fade';
    case Level = 'level';
    case Resample = 'resample';
    case Dither = 'dither';
    case LossyAgain = 'lossy-again';
    case Encode = 'encode';
    case DropChapters = 'drop-chapters';
    case DropTags = 'drop-tags';
    case CopyAuxiliary = 'copy-auxiliary';
    case DropAuxiliary = 'drop-auxiliary';
    case FilledSilence = 'filled-silence';
    case AssumedPlaces = 'assumed-places';
    case RaisedRate = 'raised-rate';
    case DoubtfulSound = 'doubtful-sound';
}
