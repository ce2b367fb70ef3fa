<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Outside\Drives\Drive;
use App\Outside\Players\Players;
use App\Outside\Publishing\Hosts;
use App\Outside\Recorders\Recorders;
use Illuminate\Contracts\View\View;
use Octavox\Core\Disc\StatedTitle;

/** What lies outside: drives, recorders, players, places to publish. */
final class OutsideController
{
    public function index(Drive $drive, Recorders $recorders, Players $players,
        Hosts $hosts): View
    {
        $disc = $drive->disc();

        return view('outside.index', ['recorders' => $recorders->all(), 'players' => $players->all(), 'hosts' => $hosts->all(),
            'disc' => $disc === null ? null : StatedTitle::discName($disc)]);
    }
}
