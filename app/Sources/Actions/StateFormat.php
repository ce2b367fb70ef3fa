<?php

declare(strict_types=1);

namespace App\Sources\Actions;

use App\Sources\Models\Source;
use App\Sources\Queries\HeaderlessFormats;
use App\Sources\Values\SourceState;
use App\Work\WorkKind;
use App\Work\WorkSignal;
use Octavox\Core\Container\Raw\HeaderlessFormat;
use Octavox\Core\Container\Raw\HeaderlessFormatUnknown;

/** Says what a file without a header holds, and remembers it of its recorder where that is wanted. */
final class StateFormat
{
    public function __construct(private readonly RememberFormat $remember, private readonly WorkSignal $signal) {}

    /** @throws HeaderlessFormatUnknown */
    public function state(Source $source, string $as, bool $isRemembered, string $recorder): void
    {
        $format = HeaderlessFormat::parse($as);
        if ($isRemembered) {
            $this->remember->remember($source->name, $format, $recorder);
        }
        // What was measured was measured of something else.
        $source->tracks()->delete();
        foreach ([$source, ...($isRemembered ? $this->alike($source) : [])] as $one) {
            $one->update(['stated' => (string) $format, 'state' => SourceState::Reading, 'error_code' => null, 'error_says' => null]);
            $this->signal->announce(WorkKind::Reading);
        }
    }

    /** @return list<Source> others of that recorder that nobody could read */
    private function alike(Source $source): array
    {
        $extension = HeaderlessFormats::extension($source->name);
        $others = Source::query()->where('state', SourceState::Unreadable)->whereIn('error_code', Source::NO_HEADER)->whereNull('stated')
            ->whereKeyNot($source->id)->get();

        return array_values($others->filter(fn (Source $one): bool => HeaderlessFormats::extension($one->name) === $extension)->all());
    }
}
