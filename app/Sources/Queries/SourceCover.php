<?php

declare(strict_types=1);

namespace App\Sources\Queries;

use App\Sources\Models\Source;
use App\Work\WorkKind;
use App\Work\WorkSignal;
use Illuminate\Support\Facades\Cache;

/** The picture that stands for the sound, as it was kept when the source was read. */
final class SourceCover
{
    public function __construct(private readonly WorkSignal $signal) {}

    /** What the former release had read has no picture kept; it is fetched once somebody looks. */
    private const SECONDS_BETWEEN_ORDERS = 600;

    /** @return ?array{string, string} its media type and where it is; null where there is none */
    public function find(Source $source): ?array
    {
        $type = $source->facts()->cover ?? '';
        if ($type === '') {
            return null;
        }
        if (! is_file($source->coverPath()) && Cache::add("cover-$source->id", true, self::SECONDS_BETWEEN_ORDERS)) {
            $this->signal->request(WorkKind::Covers, $source->id);
        }

        return is_file($source->coverPath()) ? [$type, $source->coverPath()] : null;
    }
}
