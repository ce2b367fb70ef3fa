<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Matroska;

/** Identities of elements: RFC 9559, 5.1; RFC 8794, 11. */
final class Id
{
    public const EBML = 0x1A45DFA3;

    public const DOC_TYPE = 0x4282;

    public const SEGMENT = 0x18538067;

    public const INFO = 0x1549A966;

    public const TIMESTAMP_SCALE = 0x2AD7B1;

    public const DURATION = 0x4489;

    public const DATE = 0x4461;

    public const TITLE = 0x7BA9;

    public const TRACKS = 0x1654AE6B;

    public const TRACK_ENTRY = 0xAE;

    public const TRACK_NUMBER = 0xD7;

    public const TRACK_TYPE = 0x83;

    public const CODEC_ID = 0x86;

    public const CODEC_PRIVATE = 0x63A2;

    public const LANGUAGE = 0x22B59C;

    public const LANGUAGE_BCP47 = 0x22B59D;

    public const NAME = 0x536E;

    public const DEFAULT_DURATION = 0x23E383;

    public const CODEC_DELAY = 0x56AA;

    public const VIDEO = 0xE0;

    public const PIXEL_WIDTH = 0xB0;

    public const PIXEL_HEIGHT = 0xBA;

    public const DISPLAY_WIDTH = 0x54B0;

    public const DISPLAY_HEIGHT = 0x54BA;

    public const COLOUR = 0x55B0;

    public const MATRIX = 0x55B1;

    public const RANGE = 0x55B9;

    public const TRANSFER = 0x55BA;

    public const PRIMARIES = 0x55BB;

    public const AUDIO = 0xE1;

    public const SAMPLING_FREQUENCY = 0xB5;

    public const OUTPUT_FREQUENCY = 0x78B5;

    public const CHANNELS = 0x9F;

    public const BIT_DEPTH = 0x6264;

    public const CONTENT_ENCODINGS = 0x6D80;

    public const CONTENT_ENCODING = 0x6240;

    public const CONTENT_COMPRESSION = 0x5034;

    public const CONTENT_ALGORITHM = 0x4254;

    public const CONTENT_SETTINGS = 0x4255;

    public const CONTENT_ENCRYPTION = 0x5035;

    public const CLUSTER = 0x1F43B675;

    public const TIMESTAMP = 0xE7;

    public const SIMPLE_BLOCK = 0xA3;

    public const BLOCK_GROUP = 0xA0;

    public const BLOCK = 0xA1;

    public const BLOCK_DURATION = 0x9B;

    public const REFERENCE_BLOCK = 0xFB;

    public const DISCARD_PADDING = 0x75A2;

    public const CUES = 0x1C53BB6B;

    public const SEEK_HEAD = 0x114D9B74;

    public const CHAPTERS = 0x1043A770;

    public const EDITION_ENTRY = 0x45B9;

    public const CHAPTER_ATOM = 0xB6;

    public const CHAPTER_START = 0x91;

    public const CHAPTER_DISPLAY = 0x80;

    public const CHAPTER_STRING = 0x85;

    public const TAGS = 0x1254C367;

    public const TAG = 0x7373;

    public const TARGETS = 0x63C0;

    public const TARGET_TRACK = 0x63C5;

    public const SIMPLE_TAG = 0x67C8;

    public const TAG_NAME = 0x45A3;

    public const TAG_STRING = 0x4487;

    public const ATTACHMENTS = 0x1941A469;

    public const ATTACHED_FILE = 0x61A7;

    public const FILE_DESCRIPTION = 0x467E;

    public const FILE_NAME = 0x466E;

    public const FILE_DATA = 0x465C;

    public const FILE_MEDIA_TYPE = 0x4660;

    /** Elements that stand directly in the segment: one of them ends a cluster of unknown length. */
    public const TOP = [self::INFO, self::TRACKS, self::CLUSTER, self::CUES, self::SEEK_HEAD, self::CHAPTERS, self::TAGS,
        self::ATTACHMENTS];
}
