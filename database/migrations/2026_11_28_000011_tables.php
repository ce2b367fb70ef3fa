<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** The tables as they were when homes began to be carried over; what changed since has a migration of its own. */
return new class extends Migration
{
    private const TABLES = ['sources', 'tracks', 'uploads', 'groups', 'packet_borders', 'copied_folders', 'orders', 'order_lines',
        'presets',
        'results', 'safe_copies', 'standing_orders', 'arrivals', 'settings', 'access_tokens', 'answered_requests', 'jobs'];

    public function up(): void
    {
        if (Schema::hasTable('sources')) {
            Schema::hasColumn('uploads', 'dropped')
                || throw new RuntimeException('This home is of a release before 28 November 2026: start '
                .'it once with the release of that day, which takes it over, and then with this one.');

            return;
        }
        $this->sources();
        $this->orders();
        $this->results();
        $this->watching();
        $this->settings();
    }

    public function down(): void
    {
        foreach (array_reverse(self::TABLES) as $table) {
            Schema::dropIfExists($table);
        }
    }

    private function sources(): void
    {
        Schema::create('sources', function (Blueprint $table): void {
            $table->id();
            $table->string('name');
            $table->string('folder')->default('');
            $table->text('path');
            $table->string('origin', 20);
            $table->string('state', 20)->index();
            $table->string('container')->nullable();
            $table->unsignedBigInteger('bytes')->default(0);
            $table->double('seconds')->nullable();
            $table->string('picture')->nullable();
            $table->string('worst', 10)->nullable();
            $table->json('reading')->nullable();
            $table->string('error_code')->nullable();
            $table->text('error_says')->nullable();
            $table->timestamps();
            $table->string('content', 80)->nullable()->index();
            $table->unsignedBigInteger('same_as')->nullable();
            $table->timestamp('removed_at')->nullable()->index();
            $table->text('note')->default('');
            $table->unsignedBigInteger('group_id')->nullable()->index();
            $table->string('given_name')->default('');
            $table->unsignedBigInteger('belongs_to')->nullable()->index();
            $table->text('binned')->nullable();
            $table->string('stated')->nullable();
            $table->text('came_from')->default('');
            $table->string('sha256', 64)->nullable();
            $table->json('catalogue')->nullable();
            $table->index(['created_at', 'id']);
            $table->index('name');
        });
        Schema::create('tracks', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('source_id')->constrained()->cascadeOnDelete();
            $table->unsignedInteger('number');
            $table->string('kind', 10);
            $table->string('codec');
            $table->string('format');
            $table->string('language')->nullable();
            $table->unsignedInteger('rate')->nullable();
            $table->unsignedInteger('channels')->nullable();
            $table->string('layout')->nullable();
            $table->double('kbps')->nullable();
            $table->unsignedBigInteger('samples')->nullable();
            $table->double('starts')->default(0);
            $table->unsignedInteger('width')->nullable();
            $table->unsignedInteger('height')->nullable();
            $table->double('per_second')->nullable();
            $table->json('analysis')->nullable();
            $table->json('analysis_findings')->nullable();
            $table->text('analysis_error')->nullable();
            $table->unique(['source_id', 'number']);
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
            $table->string('dropped', 60)->default('');
            $table->index(['dropped', 'folder']);
        });
        Schema::create('groups', function (Blueprint $table): void {
            $table->id();
            $table->string('title');
            $table->string('mark')->nullable()->unique();
            $table->timestamps();
        });
        Schema::create('packet_borders', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('source_id')->constrained()->cascadeOnDelete();
            $table->string('query');
            $table->json('borders')->nullable();
            $table->text('error')->nullable();
            $table->timestamps();
            $table->unique(['source_id', 'query']);
        });
        Schema::create('copied_folders', function (Blueprint $table): void {
            $table->id();
            $table->string('shelf');
            $table->text('folder');
            $table->string('state', 20);
            $table->unsignedInteger('files')->default(0);
            $table->unsignedInteger('done')->default(0);
            $table->text('says')->default('');
            $table->timestamps();
        });
    }

    private function orders(): void
    {
        Schema::create('orders', function (Blueprint $table): void {
            $table->id();
            $table->json('sheet');
            $table->string('summary');
            $table->timestamps();
            $table->string('once')->nullable()->unique();
            $table->json('spec')->nullable();
            $table->string('state', 20)->default('placed')->index();
            $table->string('title')->default('');
            $table->string('destination')->nullable();
            $table->string('recipe')->nullable();
            $table->json('base')->nullable();
            $table->string('place')->default('');
            $table->unsignedInteger('revision')->default(0);
            $table->timestamp('placed_at')->nullable();
            $table->boolean('held')->default(false);
            // Why nobody works on it, where that was not somebody's wish.
            $table->string('held_by', 20)->nullable();
            $table->integer('priority')->default(0);
            $table->string('on_failure', 20)->default('go-on');
            $table->string('asked_by')->nullable()->unique();
            $table->string('care', 20)->default('keep');
            $table->timestamp('cleared_at')->nullable();
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
        Schema::create('presets', function (Blueprint $table): void {
            $table->id();
            $table->string('kind', 20);
            $table->string('name', 60);
            $table->json('document')->nullable();
            $table->boolean('starred')->default(false);
            $table->timestamp('used_at')->nullable();
            $table->timestamps();
            $table->unique(['kind', 'name']);
        });
    }

    private function results(): void
    {
        Schema::create('results', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('order_id')->constrained()->cascadeOnDelete();
            $table->foreignId('source_id')->nullable()->constrained()->nullOnDelete();
            $table->string('source_name');
            $table->string('name');
            $table->string('action', 10);
            $table->string('state', 20)->index();
            $table->string('phase', 20)->nullable();
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
            $table->json('spec')->nullable();
            $table->text('binned')->nullable();
            $table->boolean('held')->default(false);
            $table->string('waits_for', 20)->nullable();
            $table->integer('turn')->default(0);
            $table->index(['state', 'order_id']);
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

    private function watching(): void
    {
        Schema::create('standing_orders', function (Blueprint $table): void {
            $table->id();
            $table->string('title');
            $table->string('shelf');
            $table->text('folder');
            $table->boolean('nested')->default(true);
            $table->string('goes');
            $table->text('place');
            $table->text('name');
            $table->boolean('paused')->default(false);
            $table->text('trouble');
            $table->timestamps();
        });
        Schema::create('arrivals', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('standing_order_id')->constrained()->cascadeOnDelete();
            $table->text('path');
            // Device and number on it: a new name is no new file.
            $table->string('identity', 60);
            $table->unsignedBigInteger('bytes');
            $table->bigInteger('changed');
            $table->string('state', 20);
            $table->text('says');
            $table->timestamp('still_since')->nullable();
            $table->unsignedBigInteger('source_id')->nullable();
            $table->unsignedBigInteger('order_id')->nullable();
            $table->timestamps();
            $table->index(['standing_order_id', 'state']);
            $table->index(['standing_order_id', 'identity']);
        });
    }

    private function settings(): void
    {
        Schema::create('settings', function (Blueprint $table): void {
            $table->string('name', 60)->primary();
            $table->json('value');
            $table->timestamps();
        });
        Schema::create('access_tokens', function (Blueprint $table): void {
            $table->id();
            $table->string('title');
            $table->string('hash', 64)->unique();
            $table->json('scopes');
            $table->timestamp('used_at')->nullable();
            $table->timestamps();
        });
        Schema::create('answered_requests', function (Blueprint $table): void {
            $table->id();
            $table->string('mark')->unique();
            $table->string('asked', 64);
            $table->unsignedSmallInteger('status');
            $table->json('headers');
            $table->longText('body');
            $table->timestamps();
        });
    }
};
