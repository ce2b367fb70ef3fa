<?php

declare(strict_types=1);

namespace App\Watching\Actions;

use App\Files\OutsideShelf;
use App\Orders\Actions\ChangeOrder;
use App\Orders\Actions\OpenDraft;
use App\Orders\Models\Order;
use App\Orders\Planning\PlanOrder;
use App\Orders\Values\DraftInput;
use App\Results\Actions\PlaceOrder;
use App\Results\Models\Result;
use App\Results\Queries\MadeHere;
use App\Sources\Actions\RecordReading;
use App\Sources\Actions\TakeIn;
use App\Sources\Models\Source;
use App\Sources\Values\SourceState;
use App\Watching\Models\Arrival;
use App\Watching\Models\WatchedFolder;
use App\Watching\Queries\FolderContents;
use App\Watching\Values\ArrivalState;
use App\Watching\Values\WatchedFile;
use Illuminate\Database\Eloquent\Collection;
use Octavox\Core\Failure;
use Octavox\Core\Reading\UsualExtensions;

/** Looks into the folders of standing orders: takes what has arrived, and orders what can be made of it. */
final class TendWatchedFolders
{
    /** Seconds for which a file must not have grown. */
    public const SECONDS_STILL = 5;

    /** Sources of one order. */
    private const MOST_AT_ONCE = 500;

    public function __construct(private readonly FolderContents $folders, private readonly TakeIn $take, private readonly MadeHere $made,
        private readonly OpenDraft $open, private readonly ChangeOrder $change, private readonly PlaceOrder $place,
        private readonly PlanOrder $plans) {}

    /** Each by itself, so that one that is in trouble stops no other. */
    public function run(): void
    {
        /** @var WatchedFolder $standing */
        foreach (WatchedFolder::query()->where('paused', false)->orderBy('id')->get() as $standing) {
            try {
                if ($this->folders->isStirred($standing) || $standing->arrivals()->where('state', ArrivalState::Arriving)->exists()) {
                    $this->look($standing);
                }
                $this->order($standing);
                $trouble = '';
            } catch (OutsideShelf $away) {
                $trouble = $away->getMessage();
            } catch (\Throwable $broken) {
                report($broken);
                $trouble = 'Something went wrong while its folder was looked through; it is tried again in a moment.';
            }
            if ($standing->trouble !== $trouble) {
                $standing->update(['trouble' => $trouble]);
            }
        }
    }

    /** @throws OutsideShelf */
    private function look(WatchedFolder $standing): void
    {
        $shelf = $this->folders->shelf($standing);
        $files = $this->folders->files($standing);
        $arrivals = $standing->arrivals()->get();
        [$byIdentity, $byPath] = [$arrivals->keyBy('identity'), $arrivals->keyBy('path')];
        $here = [];
        $fresh = [];
        foreach ($files as $file) {
            $known = $byIdentity->get($file->identity) ?? null;
            $isSame = $known instanceof Arrival && ($known->path === $file->path || $known->bytes === $file->bytes
                && $known->changed === $file->changed);
            $there = $byPath->get($file->path);
            // A new file under the name of one that was taken is a file of its own.
            $known = $isSame ? $known : ($there?->state === ArrivalState::Arriving ? $there : null);
            if ($known instanceof Arrival) {
                $here[$known->id] = true;
                $this->again($known, $file);
            } else {
                $fresh[] = $file;
            }
        }
        $own = $this->made->find(array_map(fn (WatchedFile $file): string => $file->real, $fresh));
        foreach ($fresh as $file) {
            $this->first($standing, $file, isset($own[$file->real]));
        }
        foreach ($arrivals as $one) {
            if ($one->state === ArrivalState::Arriving && ! isset($here[$one->id])) {
                $one->delete();
            } elseif ($one->state === ArrivalState::Arriving && $one->still_since <= now()->subSeconds(self::SECONDS_STILL)) {
                $source = $this->take->fromShelf($shelf, ltrim($standing->folder.'/'.$one->path, '/'));
                $one->update(['state' => ArrivalState::Taken, 'source_id' => $source->id]);
            }
        }
    }

    private function first(WatchedFolder $standing, WatchedFile $file, bool $isOwn): void
    {
        $why = match (true) {
            $isOwn => 'It was made here.',
            $file->besides !== null => $file->besides,
            ! UsualExtensions::isAny(pathinfo($file->path, PATHINFO_EXTENSION)) => 'Its name is not that of a recording.',
            default => '',
        };
        $standing->arrivals()->create(['path' => $file->path, 'identity' => $file->identity, 'bytes' => $file->bytes,
            'changed' => $file->changed, 'state' => $why === '' ? ArrivalState::Arriving : ArrivalState::Left, 'says' => $why,
            'still_since' => now()]);
    }

    /** One that was seen before: it may have grown, or be called otherwise now. */
    private function again(Arrival $known, WatchedFile $file): void
    {
        $isOther = $known->bytes !== $file->bytes || $known->changed !== $file->changed || $known->identity !== $file->identity;
        if ($known->state !== ArrivalState::Arriving) {
            if ($isOther && $known->state !== ArrivalState::Left) {
                $known->update(['says' => 'It was changed after it was taken; take it from its shelf by hand if that is to count.',
                    'bytes' => $file->bytes, 'changed' => $file->changed, 'identity' => $file->identity]);
            } elseif ($known->path !== $file->path) {
                $known->update(['path' => $file->path]);
            }
        } elseif ($file->besides !== null) {
            $known->update(['path' => $file->path, 'state' => ArrivalState::Left, 'says' => $file->besides]);
        } elseif ($isOther || $known->path !== $file->path) {
            $known->update(['path' => $file->path, 'bytes' => $file->bytes, 'changed' => $file->changed, 'identity' => $file->identity,
                'still_since' => $isOther ? now() : $known->still_since]);
        }
    }

    /**
     * What was read since becomes an order; what could not be read says why.
     *
     * @throws Failure
     */
    private function order(WatchedFolder $standing): void
    {
        $ready = $titles = [];
        $taken = $standing->arrivals()->where('state', ArrivalState::Taken)->with('source')->orderBy('id')
            ->limit(self::MOST_AT_ONCE)->get();
        /** @var Arrival $one */
        foreach ($taken as $one) {
            $sources = $this->standsFor($one);
            $source = $sources->first(fn (Source $title): bool => $title->isReady()) ?? $one->source;
            if ($source === null) {
                $one->update(['state' => ArrivalState::Left, 'says' => 'It was taken off the list of sources.']);
            } elseif ($source->error_code === RecordReading::TWICE) {
                $one->update(['state' => ArrivalState::Left, 'says' => (string) $source->error_says]);
            } elseif ($source->state === SourceState::Unreadable) {
                $one->update(['state' => ArrivalState::Failed, 'says' => (string) $source->error_says]);
            } elseif (! $sources->contains(fn (Source $title): bool => $title->state === SourceState::Reading)) {
                $ready[(int) ($one->order_id ?? 0)][] = $one;
                $titles[$one->id] = $sources->filter(fn (Source $title): bool => $title->isReady())
                    ->map(fn (Source $title): int => $title->id)->all();
            }
        }
        foreach ($ready as $draft => $arrivals) {
            $this->placed($standing, $draft === 0 ? null : Order::query()->find($draft), $arrivals, $titles);
        }
    }

    /**
     * A video disc came as one file and is a source for each of its titles.
     *
     * @return Collection<int, Source>
     */
    private function standsFor(Arrival $arrival): Collection
    {
        $source = $arrival->source;

        return $source?->discTitle() === null ? new Collection(array_filter([$source]))
            : Source::query()->where('path', $source->path)->orderBy('id')->get();
    }

    /**
     * @param  list<Arrival>  $arrivals
     * @param  array<int, array<int>>  $titles  numbers of the sources that each arrival is, by its own
     *
     * @throws Failure
     */
    private function placed(WatchedFolder $standing, ?Order $order, array $arrivals, array $titles): void
    {
        if ($order === null) {
            $order = $this->open->with(
                DraftInput::of(['sources' => implode(',', array_merge(...array_map(fn (Arrival $one): array => $titles[$one->id],
                    $arrivals)))]));
            $this->change->with($order, ['goes' => $standing->goes, 'place' => $standing->place,
                'title' => $standing->title.', '.now()->format('j M H:i')] + ($standing->name === '' ? [] : ['name' => $standing->name]));
            Arrival::query()->whereKey(array_map(fn (Arrival $one): int => $one->id, $arrivals))->update(['order_id' => $order->id]);
        }
        $lines = [];
        foreach ($this->plans->for($order->refresh()) as $line) {
            if ($line->isWaiting()) {
                // It is looked at once more when what it waits for is there.
                return;
            }
            $lines[$line->source->id] = $line;
        }
        $this->place->place($order);
        $made = Result::query()->where('order_id', $order->id)->pluck('source_id')->flip()->all();
        foreach ($arrivals as $one) {
            $own = array_flip($titles[$one->id]);
            $line = $lines[$one->source_id] ?? array_values(array_intersect_key($lines, $own))[0] ?? null;
            $one->update(array_intersect_key($made, $own) !== [] ? ['state' => ArrivalState::Ordered]
                : ['state' => $line?->isRight() === true ? ArrivalState::Left : ArrivalState::Failed, 'says' => $line?->says() ?? '']);
        }
        if ($made === []) {
            $order->delete();
        }
    }
}
