<?php

declare(strict_types=1);

namespace Octavox\Core\Sound;

/**
 * Where one signal belongs. The value is the speaker's bit in the channel mask of extensible WAV
 * (Multiple Channel Audio Data and WAVE Files, "dwChannelMask"); 0 is a channel without a place.
 */
enum Channel: int
{
    case Left = 0x1;
    case Right = 0x2;
    case Centre = 0x4;
    case LowFrequency = 0x8;
    case BackLeft = 0x10;
    case BackRight = 0x20;
    case LeftOfCentre = 0x40;
    case RightOfCentre = 0x80;
    case BackCentre = 0x100;
    case SideLeft = 0x200;
    case SideRight = 0x400;
    case Unplaced = 0;

    /** The letters that the trade uses. */
    public function letters(): string
    {
        return match ($this) {
            self::Left => 'L',
            self::Right => 'R',
            self::Centre => 'C',
            self::LowFrequency => 'LFE',
            self::BackLeft => 'Lb',
            self::BackRight => 'Rb',
            self::LeftOfCentre => 'Lc',
            self::RightOfCentre => 'Rc',
            self::BackCentre => 'Cs',
            self::SideLeft => 'Ls',
            self::SideRight => 'Rs',
            self::Unplaced => '?',
        };
    }
}
