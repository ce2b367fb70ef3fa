<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Matroska;

use Octavox\Core\Container\Video\PictureStream;
use Octavox\Core\Media\Codec;

/** Pictures as Matroska names them: the Matroska codec registry; RFC 9559, 5.1.4.1.28. */
final class MatroskaPicture
{
    /** Pictures that are described as in AVI, by a bitmap header. */
    public const BITMAP = 'V_MS/VFW/FOURCC';

    public static function id(Codec $codec): ?string
    {
        return match ($codec) {
            Codec::H264 => 'V_MPEG4/ISO/AVC',
            Codec::H265 => 'V_MPEGH/ISO/HEVC',
            Codec::Mpeg4Visual => 'V_MPEG4/ISO/ASP',
            Codec::Vp8 => 'V_VP8',
            Codec::Vp9 => 'V_VP9',
            Codec::Av1 => 'V_AV1',
            Codec::MotionJpeg => 'V_MJPEG',
            Codec::Mpeg1Video => 'V_MPEG1',
            Codec::Mpeg2Video => 'V_MPEG2',
            Codec::Prores => 'V_PRORES',
            Codec::WindowsMediaVideo, Codec::BitmapCoded => self::BITMAP,
            default => null,
        };
    }

    public static function track(PictureStream $stream): MatroskaTrack
    {
        $private = match (true) {
            self::id($stream->codec) === self::BITMAP => $stream->bitmapHeader,
            $stream->codec === Codec::Prores && $stream->entry !== '' => substr($stream->entry, 4, 4),
            default => $stream->configuration,
        };
        $more = '';
        if ($stream->spacing !== null) {
            // DisplayWidth, DisplayHeight
            $more .= Elements::number(0x54B0, (int) round($stream->width * $stream->spacing[0] / max(1, $stream->spacing[1])))
                .Elements::number(0x54BA, $stream->height);
        }
        if ($stream->colour !== null) {
            // Colour: MatrixCoefficients, TransferCharacteristics, Primaries, Range
            $more .= Elements::master(0x55B0, Elements::number(0x55B1, $stream->colour[2]), Elements::number(0x55BA, $stream->colour[1]),
                Elements::number(0x55BB, $stream->colour[0]), Elements::number(0x55B9, $stream->colour[3] ? 2 : 1));
        }
        $turn = self::turn($stream->matrix);
        if ($turn !== 0.0) {
            // Projection: ProjectionType rectangular, ProjectionPoseRoll
            $more .= Elements::master(0x7670, Elements::number(0x7671, 0), Elements::real(0x7675, $turn));
        }

        return MatroskaTrack::picture(self::id($stream->codec) ?? '', $private, $stream->width, $stream->height,
            $stream->perSecond > 0 ? (int) round(1e9 / $stream->perSecond) : 0, $more, $stream->language);
    }

    /** Degrees against the clock from the matrix of `tkhd`, whose numbers have 16 bits after the point. */
    private static function turn(string $matrix): float
    {
        if (strlen($matrix) !== 36) {
            return 0.0;
        }
        /** @var array<int, int> $numbers */
        $numbers = unpack('N9', $matrix);
        $signed = fn (int $value): int => $value >= 1 << 31 ? $value - (1 << 32) : $value;
        $degrees = -rad2deg(atan2($signed($numbers[2]), $signed($numbers[1])));

        return abs($degrees) < 0.01 ? 0.0 : $degrees;
    }
}
