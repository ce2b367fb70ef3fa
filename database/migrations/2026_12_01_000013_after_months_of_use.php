<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

return new class extends Migration
{
    private const LISTED = 'removed_at is null and belongs_to is null';

    /** What the list of sources is ordered by. */
    private const ORDERS = ['new' => 'created_at', 'name' => 'name', 'length' => 'ifnull(seconds, -1)', 'size' => 'bytes',
        'container' => "ifnull(container, '')", 'folder' => 'folder'];

    /** Of which tables changes are counted, by what is asked for again and again. */
    private const WATCHED = ['work' => ['results', 'orders', 'settings'],
        'sources' => ['sources', 'tracks', 'groups', 'copied_folders', 'orders', 'order_lines', 'presets']];

    public function up(): void
    {
        Schema::table('results', function (Blueprint $table): void {
            // Of the finished file; what is in the bin is added up by it.
            $table->unsignedBigInteger('bytes')->default(0);
            $table->index(['order_id', 'id']);
            $table->index('source_id');
            $table->index('updated_at');
            $table->index(['ended_at', 'order_id']);
            $table->index('path');
        });
        DB::statement("update results set bytes = ifnull(json_extract(receipt, '$.bytes'), 0) where receipt is not null");
        DB::statement('create index results_binned on results (updated_at, id) where binned is not null');
        DB::statement('create index results_in_bin on results (id, bytes) where binned is not null');
        DB::statement('create index results_held on results (order_id) where held = 1');
        DB::statement('create index results_waiting_for on results (waits_for) where waits_for is not null');
        $this->indexSources();
        Schema::table('sources', function (Blueprint $table): void {
            $table->index('path');
            $table->index('updated_at');
            // Nearly all rows have nothing there.
            $table->dropIndex(['removed_at']);
        });
        DB::statement('create index sources_removed on sources (removed_at, id, origin, binned, bytes) where removed_at is not null');
        DB::statement('create index tracks_codecs on tracks (kind, codec)');
        DB::statement('create index tracks_layouts on tracks (kind, layout)');
        DB::statement('create index tracks_of_sources on tracks (source_id, kind, codec, layout)');
        DB::statement("create index tracks_unheard on tracks (source_id) where kind = 'sound' and analysis is null and analysis_error is null");
        Schema::table('arrivals', fn (Blueprint $table) => $table->index('source_id'));
        Schema::table('order_lines', fn (Blueprint $table) => $table->index('source_id'));
        Schema::table('safe_copies', fn (Blueprint $table) => $table->index('source_id'));
        Schema::table('copied_files', function (Blueprint $table): void {
            $table->index('source_id');
            $table->index('same_as');
        });
        $this->countResults();
        $this->rememberNames('results', 'result_names', ['name', 'source_name'], null);
        $this->rememberNames('sources', 'source_names', ['name', 'folder', 'given_name', 'note'], self::LISTED);
    }

    private function indexSources(): void
    {
        foreach (self::ORDERS as $name => $by) {
            // What the list is narrowed by stands in the index: rows hold all that was read, and are slow to go through.
            DB::statement("create index sources_by_$name on sources ($by, id, state, worst, group_id, picture) where ".self::LISTED);
        }
    }

    /** How many results an order has in each state, and how long their sound is: kept by the database itself, whoever changes them. */
    private function countResults(): void
    {
        Schema::create('order_counts', function (Blueprint $table): void {
            $table->foreignId('order_id')->constrained()->cascadeOnDelete();
            $table->string('state', 20);
            $table->unsignedInteger('files');
            $table->double('seconds');
            $table->primary(['order_id', 'state']);
            $table->index(['state', 'files']);
        });
        DB::statement('insert into order_counts (order_id, state, files, seconds) select order_id, state, count(*), '
            .'sum(samples * 1.0 / max(rate, 1)) from results group by order_id, state');
        $more = fn (string $row): string => "insert into order_counts (order_id, state, files, seconds) select $row.order_id, $row.state, 1, "
            ."$row.samples * 1.0 / max($row.rate, 1) where exists (select 1 from orders where id = $row.order_id) on conflict (order_id, state) "
            .'do update set files = files + 1, seconds = seconds + excluded.seconds';
        $less = fn (string $row): string => "update order_counts set files = files - 1, seconds = seconds - $row.samples * 1.0 / max($row.rate, 1) "
            ."where order_id = $row.order_id and state = $row.state";
        DB::unprepared("create trigger results_counted after insert on results begin {$more('new')}; end");
        DB::unprepared("create trigger results_uncounted after delete on results begin {$less('old')}; end");
        DB::unprepared('create trigger results_recounted after update of state, order_id, samples, rate on results '
            .'when old.state != new.state or old.order_id != new.order_id or old.samples != new.samples or old.rate != new.rate '
            ."begin {$less('old')}; {$more('new')}; end");
        // Whoever asks again and again is told by this number whether anything is new.
        Schema::create('changes', function (Blueprint $table): void {
            $table->string('what', 20)->primary();
            $table->unsignedBigInteger('number');
        });
        foreach (self::WATCHED as $what => $tables) {
            DB::statement("insert into changes (what, number) values ('$what', 1)");
            foreach ($tables as $table) {
                foreach (['insert', 'update', 'delete'] as $event) {
                    DB::unprepared("create trigger {$table}_{$what}_by_$event after $event on $table begin "
                        ."update changes set number = number + 1 where what = '$what'; end");
                }
            }
        }
    }

    /**
     * Names are found by any part of them through groups of three letters (SQLite FTS5, 4.3.4, the trigram tokenizer).
     *
     * @param  list<string>  $columns
     * @param  ?string  $only  which rows are found
     */
    private function rememberNames(string $of, string $table, array $columns, ?string $only): void
    {
        $list = implode(', ', $columns);
        DB::statement("create virtual table $table using fts5($list, content='$of', content_rowid='id', tokenize='trigram')");
        DB::statement("insert into $table (rowid, $list) select id, $list from $of".($only === null ? '' : " where $only"));
        $values = fn (string $row): string => "$row.id, ".implode(', ', array_map(fn (string $column): string => "$row.$column", $columns));
        $when = fn (string $row): string => $only === null ? '' : ' where '.str_replace(['removed_at', 'belongs_to'],
            ["$row.removed_at", "$row.belongs_to"], $only);
        $more = "insert into $table (rowid, $list) select {$values('new')}".$when('new');
        $less = "insert into $table ($table, rowid, $list) select 'delete', {$values('old')}".$when('old');
        DB::unprepared("create trigger {$table}_added after insert on $of begin $more; end");
        DB::unprepared("create trigger {$table}_gone after delete on $of begin $less; end");
        $watched = implode(', ', [...$columns, ...($only === null ? [] : ['removed_at', 'belongs_to'])]);
        DB::unprepared("create trigger {$table}_changed after update of $watched on $of begin $less; $more; end");
    }

    public function down(): void
    {
        foreach (['results_counted', 'results_uncounted', 'results_recounted', 'result_names_added', 'result_names_gone',
            'result_names_changed',
            'source_names_added', 'source_names_gone', 'source_names_changed'] as $trigger) {
            DB::unprepared("drop trigger if exists $trigger");
        }
        foreach (self::WATCHED as $what => $tables) {
            foreach ($tables as $table) {
                foreach (['insert', 'update', 'delete'] as $event) {
                    DB::unprepared("drop trigger if exists {$table}_{$what}_by_$event");
                }
            }
        }
        foreach (['order_counts', 'changes', 'result_names', 'source_names'] as $table) {
            Schema::dropIfExists($table);
        }
        foreach (['results_binned', 'results_in_bin', 'results_held', 'results_waiting_for', 'sources_removed', 'tracks_codecs',
            'tracks_layouts',
            'tracks_of_sources', 'tracks_unheard', ...array_map(fn (string $name): string => "sources_by_$name",
                array_keys(self::ORDERS))] as $index) {
            DB::statement("drop index if exists $index");
        }
        Schema::table('results', function (Blueprint $table): void {
            foreach ([['order_id', 'id'], ['source_id'], ['updated_at'], ['ended_at', 'order_id'], ['path']] as $columns) {
                $table->dropIndex($columns);
            }
            $table->dropColumn('bytes');
        });
        Schema::table('sources', function (Blueprint $table): void {
            $table->dropIndex(['path']);
            $table->dropIndex(['updated_at']);
            $table->index('removed_at');
        });
        foreach (['arrivals', 'order_lines', 'safe_copies'] as $name) {
            Schema::table($name, fn (Blueprint $table) => $table->dropIndex(['source_id']));
        }
        Schema::table('copied_files', function (Blueprint $table): void {
            $table->dropIndex(['source_id']);
            $table->dropIndex(['same_as']);
        });
    }
};
