<?php

declare(strict_types=1);

namespace Octavox\Core\Container\IsoMedia;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\Cursor;
use Octavox\Core\Sound\Channel;
use Octavox\Core\Sound\Layout;

/** Which channel is which, beside PCM in MP4: `chnl`, ISO/IEC 14496-12, 12.2.4; positions are those of ISO/IEC 23091-3, table 2. */
final class SpeakerBox
{
    /** stream_structure: it tells of channels, not of objects. */
    private const CHANNELS = 1;

    /** definedLayout: each channel has a position of its own. */
    private const EACH = 0;

    private const POSITIONS = [0 => Channel::Left, 1 => Channel::Right, 2 => Channel::Centre, 3 => Channel::LowFrequency,
        4 => Channel::SideLeft, 5 => Channel::SideRight, 6 => Channel::LeftOfCentre, 7 => Channel::RightOfCentre, 8 => Channel::BackLeft,
        9 => Channel::BackRight, 10 => Channel::BackCentre, 13 => Channel::SideLeft, 14 => Channel::SideRight];

    /** Empty where there is nothing to say: one or two channels, or channels without a place. */
    public static function write(Layout $layout): string
    {
        if ($layout->count() < 3 || ! $layout->isPlaced()) {
            return '';
        }
        // Beside a pair in the back those at the sides are side surrounds.
        $hasBack = in_array(Channel::BackLeft, $layout->channels, true);
        $bytes = array_map(fn (Channel $channel): string => chr((int) array_search($channel,
            $hasBack ? array_diff_key(self::POSITIONS, [4 => 0, 5 => 0]) : self::POSITIONS, true)), $layout->channels);

        return Boxes::full('chnl', 0, 0, chr(self::CHANNELS).chr(self::EACH).implode('', $bytes));
    }

    /**
     * Null where it is not told in a way known here.
     *
     * @param  Cursor  $content  of the box behind its version and flags
     *
     * @throws BytesMissing
     */
    public static function read(Cursor $content, int $bytes): ?Layout
    {
        $count = $bytes - 2;
        if ($count < 1 || $count > Layout::MOST_CHANNELS || ($content->u8() & self::CHANNELS) === 0 || $content->u8() !== self::EACH) {
            return null;
        }
        $channels = [];
        for ($index = 0; $index < $count; $index++) {
            $channels[] = self::POSITIONS[$content->u8()] ?? Channel::Unplaced;
        }

        return Layout::of(...$channels);
    }
}
