<?php

declare(strict_types=1);

namespace App\Orders\Planning;

use App\Lists\Humanize;
use App\Lists\Remedy;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Container\Video\VideoOutputs;
use Octavox\Core\Failure;
use Octavox\Core\Plan\CannotPlan;
use Octavox\Core\Plan\Violation;
use Octavox\Core\Plan\Violations;

/** What helps against a refusal, as buttons. */
final class Remedies
{
    private const MOST = 4;

    /** @return list<Remedy> */
    public static function suggest(?Failure $refusal): array
    {
        $violation = $refusal instanceof CannotPlan ? $refusal->violation() : null;

        return $violation === null ? [] : array_slice(self::against($violation), 0, self::MOST);
    }

    /** @return list<Remedy> */
    private static function against(Violation $violation): array
    {
        $nearest = (array) ($violation->toArray()['nearest'] ?? []);
        $each = fn (string $field, callable $label, string $before = ''): array => array_values(array_map(
            fn (int|string $one): Remedy => new Remedy($label($one), [$field => $before.$one]),
            array_filter($nearest, fn (mixed $one): bool => is_int($one) || is_string($one) && $one !== ''),
        ));

        return match (true) {
            $violation instanceof Violations\Channels => [
                ...($violation->most >= 2 ? [new Remedy('Fold to stereo', ['layout' => 'stereo'])] : []),
                new Remedy('Make mono', ['layout' => 'mono']),
            ],
            $violation instanceof Violations\NoTrack => $each('track', fn (int|string $number): string => "Take track $number"),
            $violation instanceof Violations\NoLanguage => [new Remedy('Take the first sound track', ['track' => '']),
                ...$each('track', fn (int|string $letters): string => 'Take that in '.Humanize::language((string) $letters))],
            $violation instanceof Violations\Rate => $each('rate', fn (int|string $rate): string => 'At '.Humanize::rate((int) $rate)),
            $violation instanceof Violations\BitDepth => $each('bits', fn (int|string $bits): string => "With $bits bits"),
            $violation instanceof Violations\BitRate => $each('quality', fn (int|string $kbps): string => "At $kbps kbit/s", 'kbps:'),
            $violation instanceof Violations\NoPicture, $violation instanceof Violations\Picture,
            $violation instanceof Violations\VideoPieces => [
                new Remedy('Take the sound alone, as WAV', ['format' => 'wav', 'sound' => '']),
                new Remedy('As FLAC', ['format' => 'flac', 'sound' => '']),
            ],
            $violation instanceof Violations\VideoSound => [new Remedy('Its sound as AAC', ['sound' => 'aac']),
                new Remedy('As PCM, in MOV', ['format' => 'mov',
                    'sound' => 'wav'])],
            $violation instanceof Violations\OnlyKept => [new Remedy('As WAV', ['format' => 'wav']),
                new Remedy('As FLAC', ['format' => 'flac'])],
            $violation instanceof Violations\NotAlike => [new Remedy('A file of each track', ['track' => 'all'])],
            $violation instanceof Violations\VideoLength, $violation instanceof Violations\NoLength => [new Remedy('As long as the sound',
                ['length' => 'sound'])],
            $violation instanceof Violations\LengthOfPieces => [new Remedy('As long as the sound', ['length' => 'sound']),
                new Remedy('Not cut', ['pieces' => ''])],
            $violation instanceof Violations\RateMode => [new Remedy('As the format holds it', ['held' => ''])],
            $violation instanceof Violations\EncoderSetting => [new Remedy('As the format does it',
                ['stereo' => '', 'checksums' => '', 'compression' => '', 'broadcast' => ''])],
            $violation instanceof Violations\Compression => $each('compression', fn (int|string $level): string => "Compression $level"),
            $violation instanceof Violations\NameField => [new Remedy('Name it after its source', ['name' => '{stem}'])],
            $violation instanceof Violations\NoFormat => $each('format',
                fn (int|string $name): string => 'As '.self::label((string) $name)),
            default => [],
        };
    }

    private static function label(string $format): string
    {
        return Outputs::named($format)?->label() ?? VideoOutputs::named($format)?->label() ?? $format;
    }
}
