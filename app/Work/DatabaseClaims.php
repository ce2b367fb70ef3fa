<?php

declare(strict_types=1);

namespace App\Work;

use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Query\Builder as QueryBuilder;
use Illuminate\Support\Facades\DB;

/** Claims as rows of the database that the work itself lies in. */
final class DatabaseClaims implements Claims
{
    /** After so long without a sign a worker counts as dead. */
    private const SECONDS_WITHOUT_SIGN = 90;

    /** That a worker died says nothing about its row, until that has gone on for so long. */
    private const SECONDS_OF_GRACE = 3600;

    public function take(WorkKind $kind, Builder $rows, string $number): ?Claim
    {
        $first = $this->unheld($kind, clone $rows, $number)->toBase();
        if ($kind->triesTheInterruptedLast()) {
            $orders = $first->orders ?? [];
            $first->reorder(DB::table('claims')->select('attempts')->where('kind', $kind->value)->whereColumn('claims.row', $number));
            $first->orders = [...$first->orders ?? [], ...$orders];
        }
        $first->limit(1)->select($number.' as number');
        $now = now()->getTimestamp();
        $taken = DB::connection()->selectOne(
            'insert into claims ("kind", "row", "worker", "attempts", "began_at", "signed_at") '
            .'select ?, found.number, ?, 1, ?, ? from ('.$first->toSql().') as found where true '
            .'on conflict ("kind", "row") do update set "worker" = excluded."worker", "attempts" = "attempts" + 1, '
            .'"signed_at" = excluded."signed_at" returning "row", "attempts"',
            [$kind->value, self::worker(), $now, $now, ...$first->getBindings()], useReadPdo: false);

        return $taken instanceof \stdClass && is_numeric($taken->row) && is_numeric($taken->attempts)
            ? new Claim($kind, (int) $taken->row, self::worker(), (int) $taken->attempts) : null;
    }

    public function sign(Claim $claim): void
    {
        $this->held($claim)->update(['signed_at' => now()->getTimestamp()]);
    }

    public function end(Claim $claim): void
    {
        $this->held($claim)->delete();
    }

    public function giveBack(Claim $claim, bool $isAttempt): void
    {
        $this->held($claim)->update(['worker' => null, 'attempts' => DB::raw('max(0, attempts - '.($isAttempt ? 0 : 1).')')]);
    }

    public function releaseDead(): void
    {
        $now = now()->getTimestamp();
        foreach (DB::table('claims')->whereNotNull('worker')->get() as $claim) {
            if ($claim->signed_at < $now - self::SECONDS_WITHOUT_SIGN || self::hasDied((string) $claim->worker)) {
                $this->release($claim->began_at > $now - self::SECONDS_OF_GRACE, DB::table('claims')->where('kind', $claim->kind)
                    ->where('row', $claim->row)->where('worker', $claim->worker));
            }
        }
        // Rows that are gone, or done by another way, are asked for no more.
        DB::table('claims')->whereNull('worker')->where('signed_at', '<', $now - 24 * self::SECONDS_OF_GRACE)->delete();
    }

    public function releaseAll(): void
    {
        $this->release(true, DB::table('claims')->whereNotNull('worker'));
    }

    public function unheld(WorkKind $kind, Builder $rows, string $number): Builder
    {
        return $rows->whereNotExists(fn (QueryBuilder $query) => $query->selectRaw('1')->from('claims')->where('claims.kind', $kind->value)
            ->whereColumn('claims.row', $number)->whereNotNull('claims.worker'));
    }

    private function release(bool $isGrace, QueryBuilder $claims): void
    {
        $claims->update(['worker' => null, 'attempts' => DB::raw('max(0, attempts - '.($isGrace ? 1 : 0).')')]);
    }

    private function held(Claim $claim): QueryBuilder
    {
        return DB::table('claims')->where('kind', $claim->kind->value)->where('row', $claim->row)->where('worker', $claim->worker);
    }

    /** This process, whatever machine it is on. */
    private static function worker(): string
    {
        return gethostname().':'.getmypid();
    }

    /** Whether it was a process of this machine that is gone; of others only their signs tell. */
    private static function hasDied(string $worker): bool
    {
        $parts = explode(':', $worker);

        return count($parts) === 2 && $parts[0] === gethostname() && ! posix_kill((int) $parts[1], 0);
    }
}
