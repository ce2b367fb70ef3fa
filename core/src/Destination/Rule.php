<?php

declare(strict_types=1);

namespace Octavox\Core\Destination;

/** What a destination can refuse of a file. The values are what programs are told. */
enum Rule: string
{
    case Container = 'container';
    case Picture = 'picture';
    case Codec = 'codec';
    case Rate = 'rate';
    case BitDepth = 'bit-depth';
    case Channels = 'channels';
    case Layout = 'layout';
    case BitRate = 'bit-rate';
    case RateMode = 'rate-mode';
    case Size = 'size';
    case Duration = 'duration';
    case Name = 'name';
    case Tags = 'tags';
    case Cover = 'cover';
    case Sound = 'sound';
    case Loudness = 'loudness';
    case Broadcast = 'broadcast';
    case Index = 'index';

    /** What somebody asks besides cannot be made at all. */
    case Asked = 'asked';
}
