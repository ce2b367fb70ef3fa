<?php

declare(strict_types=1);

namespace Octavox\Core\Media;

enum TrackKind: string
{
    case Sound = 'sound';
    case Picture = 'picture';
    case Text = 'text';
    case Timecode = 'timecode';
}
