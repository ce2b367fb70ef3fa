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
            // Those of former releases were all placed.
            $table->string('state')->default('placed')->index();
            $table->string('title')->default('');
            $table->string('destination')->nullable();
            $table->string('recipe')->nullable();
            $table->json('base')->nullable();
            $table->string('place')->default('');
            $table->unsignedInteger('revision')->default(0);
            $table->timestamp('placed_at')->nullable();
        });
        Schema::create('order_lines', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('order_id')->constrained()->cascadeOnDelete();
            $table->foreignId('source_id')->constrained()->cascadeOnDelete();
            $table->unsignedInteger('position');
            $table->json('spec')->nullable();
            $table->boolean('marked')->default(false);
            $table->unique(['order_id', 'source_id']);
            $table->index(['order_id', 'position']);
        });
        Schema::table('results', function (Blueprint $table): void {
            // All that was asked of it.
            $table->json('spec')->nullable();
        });
        Schema::create('presets', function (Blueprint $table): void {
            $table->id();
            $table->string('kind');
            $table->string('name');
            // Null for those that ship with Octavox, of which only is kept how they are used.
            $table->json('document')->nullable();
            $table->boolean('starred')->default(false);
            $table->timestamp('used_at')->nullable();
            $table->timestamps();
            $table->unique(['kind', 'name']);
        });
    }

    public function down(): void
    {
        Schema::dropIfExists('presets');
        Schema::table('results', fn (Blueprint $table) => $table->dropColumn('spec'));
        Schema::dropIfExists('order_lines');
        Schema::table('orders', function (Blueprint $table): void {
            $table->dropIndex(['state']);
            $table->dropColumn(['state', 'title', 'destination', 'recipe', 'base', 'place', 'revision', 'placed_at']);
        });
    }
};
