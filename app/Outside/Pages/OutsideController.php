<?php

declare(strict_types=1);

namespace App\Outside\Pages;

use App\Outside\Discs\DiscDrive;
use App\Outside\Players\Players;
use App\Outside\Publishing\Hosts;
use App\Sources\Recorders\Recorders;
use Illuminate\Contracts\View\View;
use Octavox\Core\Disc\StatedTitle;

/** What lies outside: drives, recorders, players, places to publish. */
final class OutsideController
{
    public function index(DiscDrive $drive, Recorders $recorders, Players $players,
        Hosts $hosts): View
    {
        $disc = $drive->disc();

        return view('outside.index', ['recorders' => $recorders->all(), 'players' => $players->all(), 'hosts' => $hosts->all(),
            'disc' => $disc === null ? null : StatedTitle::discName($disc)]);
    }
}
