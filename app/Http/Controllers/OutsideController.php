<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Outside\Drives\Drive;
use App\Outside\Recorders\Recorders;
use Illuminate\Contracts\View\View;
use Octavox\Core\Disc\StatedTitle;

/** What lies outside: drives, recorders, players, places to publish. */
final class OutsideController
{
    public function index(Drive $drive, Recorders $recorders): View
    {
        $disc = $drive->disc();

        return view('outside.index', ['recorders' => $recorders->all(), 'disc' => $disc === null ? null : StatedTitle::discName($disc)]);
    }
}
