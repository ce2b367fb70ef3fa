<?php

declare(strict_types=1);

namespace App\Queries;

use App\Actions\CopyIn;
use App\Models\CopiedFolder;
use App\Outside\Recorders\Recorder;
use App\Outside\Recorders\Recorders;
use App\Values\OutsideShelf;
use App\Values\PluggedRecorder;

/** What is plugged in, and what on it is new. */
final class RecorderList
{
    public function __construct(private readonly Recorders $recorders, private readonly ShelfFiles $files) {}

    /** @return list<PluggedRecorder> */
    public function all(): array
    {
        $copies = CopiedFolder::query()->where('shelf', 'like', CopiedFolder::RECORDER.'%')->get()->keyBy('shelf');

        return array_map(fn (Recorder $one): PluggedRecorder => $this->plugged($one, $copies->get($one->shelf())), $this->recorders->all());
    }

    private function plugged(Recorder $recorder, ?CopiedFolder $copy): PluggedRecorder
    {
        try {
            $files = $this->files->of($recorder->files(), [''], true)->files;
        } catch (OutsideShelf) {
            $files = [];
        }
        $bytes = $new = 0;
        foreach ($files as $path => $real) {
            $bytes += (int) @filesize($real);
            $new += CopyIn::wasCopied($recorder->shelf(), (string) $path, $real) ? 0 : 1;
        }

        return new PluggedRecorder($recorder->name, count($files), $new, $bytes, $copy);
    }
}
