<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Media\Codec;

/**
 * The head by which AVI, ASF and, taken over from them, Matroska describe pictures: BITMAPINFOHEADER of 40 bytes, then what the decoder
 * needs. Such pictures stand in the order of decoding and have no other times.
 */
final readonly class BitmapHeader
{
    private const BYTES = 40;

    private function __construct(public string $bytes, public int $width, public int $height, private string $compression) {}

    /**
     * @param  string  $handler  what is used where the head itself names no compression though there is one
     * @return ?self null where these are no such bytes
     */
    public static function parse(string $bytes, string $handler = ''): ?self
    {
        if (strlen($bytes) < self::BYTES) {
            return null;
        }
        if (substr($bytes, 16, 4) === "\0\0\0\0" && preg_match('/^[A-Z0-9]{4}$/i', $handler) === 1) {
            $bytes = substr_replace($bytes, $handler, 16, 4);
        }
        /** @var array{width: int, height: int} $size */
        $size = unpack('Vwidth/Vheight', $bytes, 4);
        // Rows from the top down have a negative height.
        $height = $size['height'] >= 1 << 31 ? (1 << 32) - $size['height'] : $size['height'];

        return new self($bytes, $size['width'] & 0xFFFFFF, $height, substr($bytes, 16, 4));
    }

    /** Motion JPEG needs no such head; everything else can only be copied together with it. */
    public function codec(): Codec
    {
        return match (strtoupper($this->compression)) {
            'MJPG', 'JPEG', 'AVRN' => Codec::MotionJpeg,
            'WMV1', 'WMV2', 'WMV3', 'WMVA', 'WMVP', 'WVP2', 'WVC1' => Codec::WindowsMediaVideo,
            default => Codec::BitmapCoded,
        };
    }

    public function label(): string
    {
        $name = trim((string) preg_replace('/[^\x20-\x7E]/', '', $this->compression));

        return match (strtoupper($name)) {
            '' => 'uncompressed pictures',
            'H264', 'X264', 'AVC1' => CodecModules::of(Codec::H264)->label(),
            'HEVC', 'H265' => CodecModules::of(Codec::H265)->label(),
            'XVID', 'DIVX', 'DX50', 'MP4V', 'FMP4' => CodecModules::of(Codec::Mpeg4Visual)->label(),
            'MPG1' => CodecModules::of(Codec::Mpeg1Video)->label(),
            'MPG2' => CodecModules::of(Codec::Mpeg2Video)->label(),
            'VP80' => CodecModules::of(Codec::Vp8)->label(),
            'VP90' => CodecModules::of(Codec::Vp9)->label(),
            'DVSD', 'DV25' => 'DV',
            default => $this->codec() === Codec::BitmapCoded ? $name : CodecModules::of($this->codec())->label(),
        };
    }
}
