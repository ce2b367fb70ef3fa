<?php

declare(strict_types=1);

namespace App\Sources\Queries;

use App\Processes\AskedChild;
use App\Settings\Queries\Settings;
use App\Sources\Models\Source;
use App\Sources\Values\RecorderFormat;
use Octavox\Core\Container\Raw\HeaderlessFormat;
use Octavox\Core\Failure;

/** What files without a header hold: as it was remembered of their recorders, and as their bytes make likely. */
final class HeaderlessFormats
{
    /** What is shown first where nobody knows anything. */
    public const USUAL = 'pcm16:44100:1';

    private const SECONDS = 20;

    public function __construct(private readonly Settings $settings) {}

    /** @return list<RecorderFormat> */
    public function remembered(): array
    {
        $formats = [];
        $kept = $this->settings->get(Settings::HEADERLESS);
        foreach (is_array($kept) ? $kept : [] as $extension => $one) {
            if (is_array($one) && is_string($one['as'] ?? null) && is_string($one['recorder'] ?? null)) {
                $formats[] = new RecorderFormat((string) $extension, $one['as'], $one['recorder']);
            }
        }

        return $formats;
    }

    public function for(string $name): ?RecorderFormat
    {
        $extension = self::extension($name);

        return array_values(array_filter($this->remembered(), fn (RecorderFormat $one): bool => $one->extension === $extension))[0] ?? null;
    }

    /** @throws Failure where it says nothing that is understood */
    public function tried(string $as): HeaderlessFormat
    {
        return HeaderlessFormat::parse($as);
    }

    /** @return list<HeaderlessFormat> as its bytes make likely, the likeliest first */
    public function guessed(Source $source): array
    {
        try {
            $answer = (new AskedChild('guess', self::SECONDS))->answer(['path' => $source->path], $source->path, "source-$source->id.log");
            $guesses = array_filter(is_array($answer['guesses'] ?? null) ? $answer['guesses'] : [], is_string(...));

            return array_values(array_map(HeaderlessFormat::parse(...), $guesses));
        } catch (Failure) {
            // Nobody knows; whoever listens may find out.
            return [];
        }
    }

    /** By which the files of a recorder are known, in small letters. */
    public static function extension(string $name): string
    {
        return strtolower(pathinfo($name, PATHINFO_EXTENSION));
    }
}
