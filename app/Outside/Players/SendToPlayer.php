<?php

declare(strict_types=1);

namespace App\Outside\Players;

use App\Files\Folder;
use App\Orders\Actions\ChangeOrder;
use App\Orders\Actions\OpenDraft;
use App\Orders\Models\Order;
use App\Orders\Values\DraftInput;
use App\Presets\Actions\PresetFiles;
use App\Presets\Models\Preset;
use App\Presets\Queries\Presets;
use App\Presets\Values\PresetKind;
use App\Results\Models\Result;
use App\Sources\Actions\TakeIn;
use Octavox\Core\Destination\Destination;
use Octavox\Core\Destination\DestinationInvalid;
use Octavox\Core\Failure;
use Octavox\Core\Order\RecipeInvalid;

/**
 * Begins an order whose results lie on a player: what it refuses is remade as it wants it, everything else is copied; or everything is made
 * in the format that it likes best. What will be on it stands on the order sheet before anything is written.
 */
final class SendToPlayer
{
    public function __construct(private readonly OpenDraft $open, private readonly ChangeOrder $change, private readonly TakeIn $take,
        private readonly Presets $presets, private readonly PresetFiles $files) {}

    /**
     * @param  list<int>  $sources
     * @param  iterable<Result>  $results  of which copies go as well
     * @param  bool  $all  whether everything is made in its own format
     *
     * @throws DestinationInvalid
     * @throws RecipeInvalid
     * @throws Failure
     */
    public function draft(Player $player, array $sources, iterable $results, bool $all): ?Order
    {
        $body = $player->body;
        if ($body === null) {
            return null;
        }
        foreach ($results as $result) {
            if ($result->isThere()) {
                $sources[] = $this->take->result((string) $result->path, $result->order->heading())->id;
            }
        }
        $this->know($body->destination);
        Folder::ready($player->folder());
        $order = $this->open->with(DraftInput::of(['sources' => $sources, 'player' => $player->name.' '.microtime()]));
        if ($all) {
            $this->change->begin($order, $body->destination->spec);
        }
        $this->change->with($order, ($all ? [] : ['goes' => 'to:'.$body->destination->name]) + ['title' => 'To '.$player->title(),
            'place' => 'shelf:'.$player->shelfName(), 'right' => 'copy'] + ($body->names === '' ? [] : ['name' => $body->names]));

        return $order->refresh();
    }

    /** What the player accepts becomes a destination as any other. */
    private function know(Destination $destination): void
    {
        Preset::query()->updateOrCreate(['kind' => PresetKind::Destination, 'name' => $destination->name],
            ['document' => json_decode((string) json_encode($destination->toArray()), true)]);
        $this->files->write($destination);
        $this->presets->forget();
    }
}
