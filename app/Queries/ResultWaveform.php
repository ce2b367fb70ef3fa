<?php

declare(strict_types=1);

namespace App\Queries;

use App\Models\Result;
use App\Models\Track;
use App\Values\CoreProcess;
use Illuminate\Support\Facades\File;
use Octavox\Core\Analysis\Waveform;

/** The ribbons of a delivery: of the track that it was made of, or of its result, which is listened to the first time it is asked for. */
final class ResultWaveform
{
    private const SECONDS = 120;

    public function __construct(private readonly OpenWaveform $ribbons)
    {
    }

    public function before(Result $delivery): ?Waveform
    {
        $track = Track::query()->where('source_id', $delivery->source_id)->where('number', $delivery->plan['track'] ?? 0)->first();

        return $track === null ? null : $this->ribbons->of($track);
    }

    public function after(Result $delivery): ?Waveform
    {
        if (! $delivery->isThere()) {
            return null;
        }
        $path = sprintf('%s/ribbons/result-%d.ribbon', config('octavox.home'), $delivery->id);
        if (! is_file($path)) {
            File::ensureDirectoryExists(dirname($path));
            CoreProcess::of('listening', ['path' => $delivery->path, 'track' => 1, 'stated' => $delivery->statedForm(), 'ribbon' => $path.'.part'])->setTimeout(self::SECONDS)->run();
            if (is_file($path.'.part')) {
                rename($path.'.part', $path);
            }
        }

        return $this->ribbons->at($path);
    }
}
