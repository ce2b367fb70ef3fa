<?php

declare(strict_types=1);

namespace App\Files;

/** What browsers must be told so that they play a file. QuickTime movies play as MP4, whose structure they share. */
final class MediaType
{
    private const SOUNDS = ['audio/mp4', 'audio/webm', 'audio/wav', 'audio/flac', 'audio/ogg', 'audio/aac', 'audio/mpeg'];

    /** Whether it is one of those that are told of sound. */
    public static function isSound(string $type): bool
    {
        return in_array($type, self::SOUNDS, true);
    }

    public static function name(string $container, bool $picture): string
    {
        return match ($container) {
            'mp4', 'mov', 'm4a', 'm4r', '3gp', 'aac', 'alac' => $picture ? 'video/mp4' : 'audio/mp4',
            'mkv', 'mka', 'webm' => $picture ? 'video/webm' : 'audio/webm',
            'wav', 'float', 'ulaw', 'alaw' => 'audio/wav',
            'flac' => 'audio/flac',
            'ogg', 'opus', 'vorbis' => 'audio/ogg',
            'adts' => 'audio/aac',
            'mp3', 'mp2', 'mp1' => 'audio/mpeg',
            default => 'application/octet-stream',
        };
    }
}
