<?php

declare(strict_types=1);

namespace App\Outside\Pages;

use App\Http\RequestInput;
use App\Lists\LineNumbers;
use App\Orders\Pages\CurrentDraft;
use App\Outside\Players\ClearPlayer;
use App\Outside\Players\Players;
use App\Outside\Players\SendToPlayer;
use App\Results\Actions\ChangeResult;
use App\Results\Queries\ResultList;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Octavox\Core\Destination\DestinationInvalid;
use Octavox\Core\Failure;
use Octavox\Core\Order\RecipeInvalid;

final class PlayerController
{
    private const GONE = 'This player is no longer plugged in; nothing was lost.';

    public function index(Request $request, PlayerPage $page, CurrentDraft $current): View
    {
        $players = $page->all();
        $results = LineNumbers::read($request->query('results'));

        return view('outside.players', ['players' => $players, 'results' => implode(',', $results),
            'chosen' => $results === [] ? count($current->find()?->sourceNumbers() ?? []) : count($results),
            'busy' => array_filter($players, fn (PluggedPlayer $one): bool => $one->open > 0) !== []]);
    }

    /**
     * Begins the order by which sources or results go to a player: those that are named, or those that are chosen among the sources.
     *
     * @throws DestinationInvalid
     * @throws RecipeInvalid
     * @throws Failure
     */
    public function send(Request $request, Players $players, SendToPlayer $send, CurrentDraft $current, ResultList $list): RedirectResponse
    {
        $player = $players->named(RequestInput::sent($request, 'player'));
        $results = LineNumbers::read($request->input('results'));
        $sources = $request->has('sources') ? LineNumbers::read($request->input('sources'))
            : ($results === [] ? ($current->find()?->sourceNumbers() ?? []) : []);
        if ($player === null) {
            return redirect()->route('players')->with('said', self::GONE);
        }
        $order = $sources === [] && $results === [] ? null
            : $send->draft($player, $sources, $results === [] ? [] : $list->many(null, $results), $request->boolean('all'));
        if ($order === null) {
            return redirect()->route('players')->with('said', $player->body === null ? 'The description of this player cannot be read, so '
                .'nothing is sent to it.' : 'Nothing is chosen; tick sources, or mark results, and come back.');
        }
        $current->set($order);

        return redirect()->route('order', $order)
            ->with('said', 'This is what will be on it. Nothing is written before the order is placed.');
    }

    public function remove(Request $request, Players $players, ClearPlayer $clear): RedirectResponse
    {
        $player = $players->named(RequestInput::sent($request, 'player'));
        $paths = array_values(array_filter((array) $request->input('files'), is_string(...)));

        return redirect()->route('players')->with('said', $player === null ? self::GONE : $clear->clear($player, $paths));
    }

    /** What could not be written while it was away is begun again. */
    public function again(Request $request, Players $players, PlayerPage $page, ChangeResult $change): RedirectResponse
    {
        $player = $players->named(RequestInput::sent($request, 'player'));
        $failed = $player === null ? [] : $page->failed($player);
        foreach ($failed as $result) {
            $change->retry($result);
        }

        return redirect()->route('players')->with('said', $player === null ? self::GONE : sprintf('%d begun again.', count($failed)));
    }
}
