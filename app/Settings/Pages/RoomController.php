<?php

declare(strict_types=1);

namespace App\Settings\Pages;

use App\Http\RequestInput;
use App\Results\Queries\Bin;
use App\Settings\Queries\KeptFree;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;

/** The room on the drive of the home: how much there is, and what can be freed. */
final class RoomController
{
    public function show(KeptFree $room, Freeable $freeable, Bin $bin): View
    {
        return view('room', ['room' => $room, 'freeable' => $freeable, 'bin' => $bin]);
    }

    public function free(Request $request, Freeable $freeable): RedirectResponse
    {
        $said = match (RequestInput::sent($request, 'do')) {
            'uploads' => sprintf('%s given up.', self::counted($freeable->dropUploads(), 'unfinished upload')),
            'drawings' => sprintf('%s deleted; each is drawn again when you look at it.',
                self::counted($freeable->dropDrawings(), 'drawing')),
            default => abort(404),
        };

        return redirect()->route('room')->with('said', $said);
    }

    private static function counted(int $count, string $what): string
    {
        return $count === 1 ? "One $what was" : number_format($count)." {$what}s were";
    }
}
