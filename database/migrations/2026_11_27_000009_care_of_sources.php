<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

return new class extends Migration
{
    public function up(): void
    {
        Schema::table('sources', function (Blueprint $table): void {
            // Where its file lies since it was put into the bin.
            $table->text('binned')->nullable();
            // What a file without a header holds, as somebody said it.
            $table->string('stated', 60)->nullable();
            // Where it was copied from, and the sum of its bytes then.
            $table->text('came_from')->default('');
            $table->string('sha256', 64)->nullable();
        });
        Schema::table('orders', function (Blueprint $table): void {
            $table->string('care', 10)->default('keep');
            $table->timestamp('cleared_at')->nullable();
        });
        Schema::create('copied_folders', function (Blueprint $table): void {
            $table->id();
            $table->string('shelf', 120);
            $table->text('folder');
            $table->string('state', 20);
            $table->unsignedInteger('files')->default(0);
            $table->unsignedInteger('done')->default(0);
            $table->text('says')->default('');
            $table->timestamps();
        });
        Schema::create('safe_copies', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('order_id')->constrained()->cascadeOnDelete();
            $table->foreignId('source_id')->constrained()->cascadeOnDelete();
            $table->text('path');
            $table->string('sha256', 64);
            $table->timestamps();
            $table->unique(['order_id', 'source_id']);
        });
    }

    public function down(): void
    {
        Schema::dropIfExists('safe_copies');
        Schema::dropIfExists('copied_folders');
        Schema::table('orders', function (Blueprint $table): void {
            $table->dropColumn(['care', 'cleared_at']);
        });
        Schema::table('sources', function (Blueprint $table): void {
            $table->dropColumn(['binned', 'stated', 'came_from', 'sha256']);
        });
    }
};
