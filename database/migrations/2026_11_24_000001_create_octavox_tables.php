<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

return new class extends Migration
{
    public function up(): void
    {
        Schema::create('sources', function (Blueprint $table): void {
            $table->id();
            $table->string('name');
            $table->string('folder')->default('');
            $table->text('path');
            $table->string('origin');
            $table->string('state')->index();
            $table->string('container')->nullable();
            $table->unsignedBigInteger('bytes')->default(0);
            $table->double('seconds')->nullable();
            $table->string('picture')->nullable();
            $table->string('worst')->nullable();
            $table->json('reading')->nullable();
            $table->string('error_code')->nullable();
            $table->text('error_says')->nullable();
            $table->timestamps();
            $table->index(['created_at', 'id']);
            $table->index('name');
        });
        Schema::create('tracks', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('source_id')->constrained()->cascadeOnDelete();
            $table->unsignedInteger('number');
            $table->string('kind');
            $table->string('codec');
            $table->string('form');
            $table->string('language', 8)->nullable();
            $table->unsignedInteger('rate')->nullable();
            $table->unsignedInteger('channels')->nullable();
            $table->string('layout')->nullable();
            $table->double('kbps')->nullable();
            $table->unsignedBigInteger('samples')->nullable();
            $table->double('starts')->default(0);
            $table->unsignedInteger('width')->nullable();
            $table->unsignedInteger('height')->nullable();
            $table->double('per_second')->nullable();
        });
        Schema::create('uploads', function (Blueprint $table): void {
            $table->uuid('id')->primary();
            $table->string('name');
            $table->string('folder')->default('');
            $table->unsignedBigInteger('bytes');
            $table->unsignedBigInteger('received')->default(0);
            $table->foreignId('source_id')->nullable()->constrained()->nullOnDelete();
            $table->timestamp('expires_at')->index();
            $table->timestamps();
        });
        Schema::create('orders', function (Blueprint $table): void {
            $table->id();
            $table->json('form');
            $table->string('summary');
            $table->timestamps();
        });
        Schema::create('deliveries', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('order_id')->constrained()->cascadeOnDelete();
            $table->foreignId('source_id')->nullable()->constrained()->nullOnDelete();
            $table->string('source_name');
            $table->string('name');
            $table->string('action');
            $table->string('state')->index();
            $table->string('phase')->nullable();
            $table->json('plan');
            $table->unsignedBigInteger('source_bytes');
            $table->unsignedBigInteger('predicted_bytes');
            $table->unsignedBigInteger('samples');
            $table->unsignedInteger('rate');
            $table->unsignedBigInteger('done_samples')->default(0);
            $table->double('speed')->nullable();
            $table->unsignedInteger('attempts')->default(0);
            $table->boolean('cancelling')->default(false);
            $table->string('token')->nullable();
            $table->unsignedInteger('worker')->nullable();
            $table->text('path')->nullable();
            $table->json('receipt')->nullable();
            $table->string('error_code')->nullable();
            $table->text('error_says')->nullable();
            $table->timestamp('begun_at')->nullable();
            $table->timestamp('ended_at')->nullable();
            $table->timestamps();
        });
        Schema::create('jobs', function (Blueprint $table): void {
            $table->id();
            $table->string('queue')->index();
            $table->longText('payload');
            $table->unsignedTinyInteger('attempts');
            $table->unsignedInteger('reserved_at')->nullable();
            $table->unsignedInteger('available_at');
            $table->unsignedInteger('created_at');
        });
    }

    public function down(): void
    {
        foreach (['jobs', 'deliveries', 'orders', 'uploads', 'tracks', 'sources'] as $table) {
            Schema::dropIfExists($table);
        }
    }
};
