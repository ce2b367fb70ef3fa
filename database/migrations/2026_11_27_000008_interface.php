<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

return new class extends Migration
{
    public function up(): void
    {
        Schema::create('access_tokens', function (Blueprint $table): void {
            $table->id();
            $table->string('title', 120);
            // The token itself is kept nowhere.
            $table->string('hash', 64)->unique();
            $table->text('scopes');
            $table->timestamp('used_at')->nullable();
            $table->timestamps();
        });
        Schema::create('answered_requests', function (Blueprint $table): void {
            $table->id();
            $table->string('mark', 64)->unique();
            // Of what was asked: the same key for something else is a mistake.
            $table->string('asked', 64);
            $table->unsignedSmallInteger('status');
            $table->text('headers');
            $table->text('body');
            $table->timestamps();
        });
        Schema::create('groups', function (Blueprint $table): void {
            $table->id();
            $table->string('title', 120);
            // One drop, or one folder of a shelf: what comes by it later joins it.
            $table->string('mark', 64)->nullable()->unique();
            $table->timestamps();
        });
        Schema::table('sources', function (Blueprint $table): void {
            // Off the list, and not forgotten yet.
            $table->timestamp('removed_at')->nullable()->index();
            $table->text('note')->default('');
            $table->unsignedBigInteger('group_id')->nullable()->index();
            // What people call it, where its file is called otherwise.
            $table->string('given_name', 250)->default('');
            // The source that stands for it on the list: the files of a call are one.
            $table->unsignedBigInteger('belongs_to')->nullable()->index();
        });
        Schema::table('uploads', function (Blueprint $table): void {
            $table->string('dropped', 60)->default('');
        });
        Schema::table('orders', function (Blueprint $table): void {
            // The request of a script that ordered it: asked again, it is the same order.
            $table->string('asked_by', 64)->nullable()->unique();
        });
    }

    public function down(): void
    {
        Schema::table('sources', function (Blueprint $table): void {
            $table->dropIndex(['removed_at']);
            $table->dropIndex(['group_id']);
            $table->dropIndex(['belongs_to']);
            $table->dropColumn(['removed_at', 'note', 'group_id', 'given_name', 'belongs_to']);
        });
        Schema::table('uploads', function (Blueprint $table): void {
            $table->dropColumn('dropped');
        });
        Schema::dropIfExists('groups');
        Schema::table('orders', function (Blueprint $table): void {
            $table->dropUnique(['asked_by']);
            $table->dropColumn('asked_by');
        });
        Schema::dropIfExists('answered_requests');
        Schema::dropIfExists('access_tokens');
    }
};
