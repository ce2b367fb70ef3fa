<?php

declare(strict_types=1);

namespace App\Orders\Values;

use App\Lists\Humanize;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Container\Video\VideoOutputs;
use Octavox\Core\Order\Length;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Order\SoundSpec;
use Octavox\Core\Plan\PlanWords;
use Octavox\Core\Sound\ChannelMap;
use Octavox\Core\Sound\InvalidLevel;
use Octavox\Core\Sound\LevelTarget;

/** What a line asks otherwise than its order, in a few words each. */
final class SpecWords
{
    private const LEFT = ['tracks' => 'first track', 'codec' => 'sound kept', 'rate_control' => 'least change',
        'rate' => 'rate as recorded',
        'bit_depth' => 'bits as recorded', 'layout' => 'channels as they are', 'labels' => 'no labels', 'pieces' => 'not cut',
        'separate' => 'one file', 'exact' => 'on frame borders', 'fade_in' => 'no fade in', 'fade_out' => 'no fade out',
        'level' => 'level as it is', 'together' => 'gain of its own', 'stereo' => 'stereo as usual', 'checksums' => 'no checksums',
        'compression' => 'usual compression', 'dither' => 'dithered',
        'de_emphasis' => 'pre-emphasis as recorded'];

    /** @return array<string, string> by the field that {@see \App\Orders\Actions\ChangeLines} can set back */
    public static function say(OutputSpec $changes): array
    {
        $words = array_filter([
            'container' => $changes->container === null ? null : 'as '.(Outputs::named($changes->container)?->label()
                ?? VideoOutputs::named($changes->container)?->label() ?? $changes->container),
            'length' => self::length($changes->length),
            'name' => $changes->name === null ? null : 'named '.$changes->name,
            'place' => $changes->place === null ? null : 'another place',
            'if_exists' => $changes->ifExists === null ? null : 'if the name is taken: '.$changes->ifExists->value,
            'if_right' => $changes->ifRight === null ? null : 'if it is right already: '.$changes->ifRight->value,
            'name_signs' => $changes->nameSigns === null ? null : 'signs in the name: '.$changes->nameSigns->value,
            'cover' => $changes->cover === null ? null : ($changes->cover === '' ? 'no cover' : 'another cover'),
            'broadcast' => $changes->broadcast === null ? null : 'fields for broadcasting',
            'tag_signs' => $changes->tagSigns === null ? null : 'signs in tags: '.$changes->tagSigns->value,
        ], fn (?string $one): bool => $one !== null);
        foreach (array_keys($changes->tags ?? []) as $field) {
            $words['tags.'.$field] = str_replace('_', ' ', $field).' changed';
        }
        $sound = $changes->sounds()[0];
        foreach ($sound->said() as $field) {
            $words[$field] = in_array($field, $sound->left, true) ? self::LEFT[$field] ?? $field : self::sound($field, $sound);
        }

        return $words;
    }

    private static function length(?Length $length): ?string
    {
        return $length === null ? null : ($length->isTime() ? $length->value.' long' : 'as long as the '.$length->value);
    }

    private static function sound(string $field, SoundSpec $sound): string
    {
        return match ($field) {
            'tracks' => match ($sound->tracks) {
                'all' => 'all tracks', 'joined' => 'all tracks as one', default => 'track '.$sound->tracks,
            },
            'codec' => 'sound as '.(Outputs::named((string) $sound->codec)?->label() ?? (string) $sound->codec),
            'rate_control' => SpecForm::of(new OutputSpec(sounds: [$sound]))->qualityLabel(),
            'rate' => Humanize::rate($sound->rate),
            'bit_depth' => $sound->bitDepth.' bits',
            'layout' => isset(ChannelMap::WORDS[$sound->layout]) ? mb_strtolower(ChannelMap::WORDS[$sound->layout][0])
                : 'channels '.$sound->layout,
            'labels' => 'labels '.implode(', ', $sound->labels ?? []),
            'pieces' => 'cut',
            'separate' => 'a file of each piece',
            'exact' => 'exact edges',
            'fade_in' => 'fade in '.$sound->fadeIn.' s',
            'fade_out' => 'fade out '.$sound->fadeOut.' s',
            'level' => self::level((string) $sound->level),
            'stereo' => $sound->stereo?->value.' stereo',
            'checksums' => $sound->checksums === true ? 'with checksums' : 'no checksums',
            'compression' => 'compression '.$sound->compression,
            'dither' => $sound->dither === false ? 'rounded plainly' : 'dithered',
            'de_emphasis' => $sound->deEmphasis === true ? 'pre-emphasis taken off' : 'pre-emphasis as recorded',
            default => 'one gain for all',
        };
    }

    private static function level(string $level): string
    {
        try {
            return $level === '' ? 'level as it is' : PlanWords::level(LevelTarget::parse($level));
        } catch (InvalidLevel) {
            return 'level '.$level;
        }
    }
}
