<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

return new class extends Migration
{
    public function up(): void
    {
        Schema::create('standing_orders', function (Blueprint $table): void {
            $table->id();
            $table->string('title', 120);
            $table->string('shelf', 120);
            $table->text('folder');
            $table->boolean('nested')->default(true);
            $table->string('goes', 120);
            $table->text('place');
            $table->text('name');
            $table->boolean('paused')->default(false);
            // Why nothing can be taken at the moment; empty where something can.
            $table->text('trouble');
            $table->timestamps();
        });
        Schema::create('arrivals', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('standing_order_id')->constrained()->cascadeOnDelete();
            $table->text('path');
            // Device and number of the file on it: a file that is only called otherwise is the same.
            $table->string('identity', 60);
            $table->unsignedBigInteger('bytes');
            $table->unsignedBigInteger('changed');
            $table->string('state', 20);
            $table->text('says');
            $table->timestamp('still_since')->nullable();
            $table->foreignId('source_id')->nullable();
            $table->foreignId('order_id')->nullable();
            $table->timestamps();
            $table->index(['standing_order_id', 'state']);
            $table->index(['standing_order_id', 'identity']);
        });
    }

    public function down(): void
    {
        Schema::dropIfExists('arrivals');
        Schema::dropIfExists('standing_orders');
    }
};
