<?php

declare(strict_types=1);

namespace Octavox\Core\Container\TransportStream;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Codec\Aac\AdtsFrameParser;
use Octavox\Core\Codec\Aac\LatmFrameParser;
use Octavox\Core\Codec\Ac3\Ac3FrameParser;
use Octavox\Core\Codec\Dts\DtsFrameParser;
use Octavox\Core\Codec\FrameParser;
use Octavox\Core\Codec\Mp3\MpegFrameParser;
use Octavox\Core\Container\Mpeg\DiscPcm;
use Octavox\Core\Container\Mpeg\ElementaryTrack;
use Octavox\Core\Container\Mpeg\PcmPackets;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\LanguageCode;

/** Reads the tables that say which streams there are: ISO/IEC 13818-1, 2.4.4. */
final class ProgramTables
{
    private const PACKET = 188;

    /** Bytes from the start in which the tables must come. */
    private const REACH = 4 * 1024 * 1024;

    private const ASSOCIATIONS = 0;

    private const MOST_STREAMS = 64;

    /** The identity of a program's map, and what fills a packet behind the last section: 2.4.4.4 and 2.4.4.1. */
    private const MAP = "\x02";

    private const FILLING = "\xFF";

    public function __construct(private readonly ByteSource $bytes, private readonly int $base, private readonly int $step) {}

    /**
     * @return list<ElementaryTrack>
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function read(): array
    {
        $maps = [];
        $tracks = [];
        $sections = [];
        $until = min($this->bytes->size(), self::REACH);
        for ($at = $this->base; $at + self::PACKET <= $until; $at += $this->step) {
            $packet = $this->bytes->read($at, self::PACKET);
            if ($packet[0] !== "\x47") {
                continue;
            }
            $pid = (ord($packet[1]) & 0x1F) << 8 | ord($packet[2]);
            if ($pid !== self::ASSOCIATIONS && ! isset($maps[$pid])) {
                continue;
            }
            foreach ($this->sections($packet, $sections, $pid) as $section) {
                if ($pid === self::ASSOCIATIONS) {
                    $maps += self::associations($section);
                } elseif ($maps[$pid] === false && $section[0] === self::MAP) {
                    $maps[$pid] = true;
                    foreach (self::map($section) as $track) {
                        $tracks[$track->id] ??= $track;
                    }
                }
            }
            if ($maps !== [] && ! in_array(false, $maps, true) && $tracks !== []) {
                break;
            }
        }

        return array_slice(array_values($tracks), 0, self::MOST_STREAMS);
    }

    /**
     * Tables are cut into packets as they come: where one begins, the end of the one before can stand first, and more than one can follow
     * (ISO/IEC 13818-1, 2.4.4.1).
     *
     * @param  array<int, string>  $sections  what is being put together, by the identity of the stream
     * @return list<string> the whole sections that end in a packet, each from its table's identity on
     */
    private function sections(string $packet, array &$sections, int $pid): array
    {
        $control = ord($packet[3]);
        $skip = ($control & 0x20) !== 0 ? 5 + ord($packet[4]) : 4;
        if (($control & 0x10) === 0 || $skip >= self::PACKET) {
            return [];
        }
        $payload = substr($packet, $skip);
        if ((ord($packet[1]) & 0x40) === 0) {
            $sections[$pid] = ($sections[$pid] ?? '') === '' ? '' : $sections[$pid].$payload;

            return self::whole($sections[$pid]);
        }
        $pointer = ord($payload[0]);
        $ended = ($sections[$pid] ?? '').substr($payload, 1, $pointer);
        $sections[$pid] = substr($payload, 1 + $pointer);

        return [...(strlen($ended) > $pointer ? self::whole($ended) : []), ...self::whole($sections[$pid])];
    }

    /** @return list<string> what is whole of $held, of which the rest is left */
    private static function whole(string &$held): array
    {
        $found = [];
        while (strlen($held) >= 3 && $held[0] !== self::FILLING) {
            $length = 3 + ((ord($held[1]) & 15) << 8 | ord($held[2]));
            if (strlen($held) < $length) {
                return $found;
            }
            $found[] = substr($held, 0, $length);
            $held = substr($held, $length);
        }
        $held = strlen($held) >= 3 ? '' : $held;

        return $found;
    }

    /** @return array<int, false> by the identity of the stream that holds a program's map */
    private static function associations(string $section): array
    {
        $maps = [];
        for ($at = 8; $section[0] === "\0" && $at + 8 <= strlen($section); $at += 4) {
            $program = ord($section[$at]) << 8 | ord($section[$at + 1]);
            if ($program !== 0) {
                $maps[(ord($section[$at + 2]) & 0x1F) << 8 | ord($section[$at + 3])] = false;
            }
        }

        return $maps;
    }

    /** @return list<ElementaryTrack> */
    private static function map(string $section): array
    {
        if (strlen($section) < 16) {
            return [];
        }
        $facts = (ord($section[10]) & 15) << 8 | ord($section[11]);
        $program = substr($section, 12, $facts);
        $tracks = [];
        for ($at = 12 + $facts; $at + 9 <= strlen($section); $at += 5 + $length) {
            $type = ord($section[$at]);
            $pid = (ord($section[$at + 1]) & 0x1F) << 8 | ord($section[$at + 2]);
            $length = (ord($section[$at + 3]) & 15) << 8 | ord($section[$at + 4]);
            $track = self::track($pid, $type, substr($section, $at + 5, $length), str_contains($program, 'HDMV'));
            if ($track !== null) {
                $tracks[] = $track;
            }
        }

        return $tracks;
    }

    /**
     * Types: ISO/IEC 13818-1, table 2-34; ATSC A/53 part 3; ETSI EN 300 468, annex D; of high-definition discs with the registration HDMV.
     */
    private static function track(int $pid, int $type, string $descriptors, bool $disc): ?ElementaryTrack
    {
        [$language, $private] = self::descriptors($descriptors);
        $sound = function (Codec $codec, ?FrameParser $frames, ?PcmPackets $pcm = null, string $variant = '') use ($pid, $language) {
            return new ElementaryTrack($pid, $codec, true, $frames, $pcm, $language, $variant);
        };
        $picture = fn (Codec $codec): ElementaryTrack => new ElementaryTrack($pid, $codec, false, null, null, $language);

        return match (true) {
            $type === 0x01 => $picture(Codec::Mpeg1Video),
            $type === 0x02 => $picture(Codec::Mpeg2Video),
            $type === 0x10 => $picture(Codec::Mpeg4Visual),
            $type === 0x1B => $picture(Codec::H264),
            $type === 0x24 => $picture(Codec::H265),
            $type === 0x03, $type === 0x04 => $sound(Codec::Mp2, new MpegFrameParser),
            $type === 0x0F => $sound(Codec::Aac, new AdtsFrameParser),
            $type === 0x11 => $sound(Codec::Aac, new LatmFrameParser),
            $type === 0x80 && $disc => $sound(Codec::Pcm, null, new DiscPcm),
            $type === 0x81, $private === 'ac3' => $sound(Codec::Ac3, new Ac3FrameParser),
            $type === 0x84, $type === 0x87, $private === 'eac3' => $sound(Codec::Eac3, new Ac3FrameParser),
            $type === 0x82, $type === 0x85, $type === 0x86, $private === 'dts' => $sound(Codec::Dts, new DtsFrameParser),
            $type === 0x83 => $sound(Codec::TrueHd, null),
            $private === 'aac' => $sound(Codec::Aac, new LatmFrameParser),
            $private === 'opus' => $sound(Codec::Unknown, null, null, 'Opus in a transport stream'),
            default => null,
        };
    }

    /** @return array{?string, string} language; codec of a private stream */
    private static function descriptors(string $bytes): array
    {
        $language = null;
        $private = '';
        for ($at = 0; $at + 2 <= strlen($bytes); $at += 2 + $length) {
            $length = ord($bytes[$at + 1]);
            $body = substr($bytes, $at + 2, $length);
            $private = match (ord($bytes[$at])) {
                0x6A => 'ac3',
                0x7A => 'eac3',
                0x7B => 'dts',
                0x7C => 'aac',
                0x05 => match (substr($body, 0, 4)) {
                    'AC-3' => 'ac3',
                    'EAC3' => 'eac3',
                    'DTS1', 'DTS2', 'DTS3' => 'dts',
                    'Opus' => 'opus',
                    default => $private,
                },
                default => $private,
            };
            if (ord($bytes[$at]) === 0x0A) {
                $language = LanguageCode::letters(substr($body, 0, 3));
            }
        }

        return [$language, $private];
    }
}
