<?php

declare(strict_types=1);

namespace App\Outside\Players;

use App\Files\Folder;
use App\Orders\Models\Order;
use App\Results\Models\Result;
use Octavox\Core\Name\LegalName;
use Octavox\Core\Plan\PlanUnreadable;

/** Once all of an order lies on a player, a playlist of it in M3U8 (extended M3U in UTF-8) does too, where the player knows playlists. */
final class WritePlaylist
{
    public function __construct(private readonly Players $players) {}

    /** @throws PlanUnreadable */
    public function write(Order $order): void
    {
        if (! str_starts_with($order->place, 'shelf:Player ')) {
            return;
        }
        $results = Result::query()->where('order_id', $order->id)->orderBy('turn')->orderBy('id')->get();
        $made = $results->filter(fn (Result $one): bool => $one->isThere())->values();
        $player = $made->isEmpty() ? null : $this->players->holding((string) $made->first()?->path);
        if ($player?->body?->playlists === null || $results->contains(fn (Result $one): bool => $one->state->isOpen())) {
            return;
        }
        $folder = rtrim($player->root.'/'.$player->body->playlists, '/');
        $up = $player->body->playlists === '' ? '' : str_repeat('../', count(explode('/', $player->body->playlists)));
        $lines = ['#EXTM3U'];
        /** @var Result $result */
        foreach ($made as $result) {
            $tags = $result->plannedAs()->tags->values();
            $lines[] = sprintf('#EXTINF:%d,%s', (int) round($result->plannedAs()->seconds()), self::line(($tags['artist'] ?? '') === ''
                ? ($tags['title'] ?? $result->name) : $tags['artist'].' - '.($tags['title'] ?? $result->name)));
            $lines[] = $up.self::line(substr((string) $result->path, strlen($player->root) + 1));
        }
        Folder::ready($folder);
        Folder::write($folder.'/'.LegalName::file(sprintf('%s %d.m3u8', $order->heading(), $order->id)), implode("\n", $lines)."\n");
    }

    private static function line(string $text): string
    {
        return (string) preg_replace('/[\r\n]+/', ' ', $text);
    }
}
