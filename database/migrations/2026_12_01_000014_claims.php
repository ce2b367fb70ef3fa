<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

return new class extends Migration
{
    public function up(): void
    {
        // Who works on which row, whatever kind of work it is.
        Schema::create('claims', function (Blueprint $table): void {
            $table->string('kind', 20);
            $table->unsignedBigInteger('row');
            // Machine and process; null where the row was given back.
            $table->string('worker', 120)->nullable();
            $table->unsignedInteger('attempts');
            $table->unsignedBigInteger('began_at');
            $table->unsignedBigInteger('signed_at');
            $table->primary(['kind', 'row']);
        });
        Schema::create('failed_jobs', function (Blueprint $table): void {
            $table->id();
            $table->string('uuid')->unique();
            $table->text('connection');
            $table->text('queue');
            $table->longText('payload');
            $table->longText('exception');
            $table->timestamp('failed_at')->useCurrent();
        });
        // Jobs of former releases name rows; those wait by themselves now.
        DB::table('jobs')->delete();
        Schema::dropColumns('jobs', ['worker']);
        Schema::dropColumns('results', ['worker']);
        Schema::dropColumns('orders', ['sheet']);
        Schema::rename('standing_orders', 'watched_folders');
        Schema::table('arrivals', fn (Blueprint $table) => $table->renameColumn('standing_order_id', 'watched_folder_id'));
        $this->renameIndexes('results', 'deliveries_', 'results_');
        $this->renameIndexes('arrivals', 'arrivals_standing_order_id_', 'arrivals_watched_folder_id_');
    }

    public function down(): void
    {
        $this->renameIndexes('arrivals', 'arrivals_watched_folder_id_', 'arrivals_standing_order_id_');
        Schema::table('arrivals', fn (Blueprint $table) => $table->renameColumn('watched_folder_id', 'standing_order_id'));
        Schema::rename('watched_folders', 'standing_orders');
        Schema::table('orders', fn (Blueprint $table) => $table->json('sheet')->default('{}'));
        Schema::table('results', fn (Blueprint $table) => $table->unsignedInteger('worker')->nullable());
        Schema::table('jobs', fn (Blueprint $table) => $table->unsignedInteger('worker')->nullable());
        Schema::dropIfExists('failed_jobs');
        Schema::dropIfExists('claims');
    }

    private function renameIndexes(string $table, string $from, string $to): void
    {
        foreach (Schema::getIndexes($table) as $index) {
            if (str_starts_with($index['name'], $from)) {
                Schema::table($table, fn (Blueprint $blueprint) => $blueprint->renameIndex($index['name'],
                    $to.substr($index['name'], strlen($from))));
            }
        }
    }
};
