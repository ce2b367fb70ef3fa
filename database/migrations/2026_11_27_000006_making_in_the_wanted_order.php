<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

return new class extends Migration
{
    public function up(): void
    {
        Schema::table('orders', function (Blueprint $table): void {
            $table->boolean('held')->default(false);
            // Why nobody works on it, where that was not somebody's wish.
            $table->string('held_by', 20)->nullable();
            $table->integer('priority')->default(0);
            $table->string('on_failure', 20)->default('go-on');
        });
        Schema::table('results', function (Blueprint $table): void {
            $table->boolean('held')->default(false);
            $table->string('waits_for', 20)->nullable();
            $table->integer('turn')->default(0);
            $table->index(['state', 'order_id']);
        });
        Schema::create('settings', function (Blueprint $table): void {
            $table->string('name', 60)->primary();
            $table->json('value');
            $table->timestamps();
        });
    }

    public function down(): void
    {
        Schema::dropIfExists('settings');
        Schema::table('results', function (Blueprint $table): void {
            $table->dropIndex(['state', 'order_id']);
            $table->dropColumn(['held', 'waits_for', 'turn']);
        });
        Schema::table('orders', function (Blueprint $table): void {
            $table->dropColumn(['held', 'held_by', 'priority', 'on_failure']);
        });
    }
};
