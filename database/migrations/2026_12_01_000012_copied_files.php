<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

return new class extends Migration
{
    public function up(): void
    {
        Schema::create('copied_files', function (Blueprint $table): void {
            $table->id();
            $table->string('shelf', 120);
            $table->text('path');
            $table->unsignedBigInteger('bytes');
            $table->bigInteger('changed');
            // What its drive tells of the file whose content was compared last.
            $table->string('seen', 100)->default('');
            $table->text('copy')->default('');
            $table->string('sha256', 64)->nullable();
            $table->foreignId('source_id')->nullable()->constrained()->nullOnDelete();
            $table->foreignId('same_as')->nullable()->constrained('sources')->nullOnDelete();
            $table->timestamps();
            $table->index(['shelf', 'path']);
        });
        Schema::table('jobs', function (Blueprint $table): void {
            // Number of the process that works on it.
            $table->unsignedInteger('worker')->nullable();
        });
    }

    public function down(): void
    {
        Schema::table('jobs', function (Blueprint $table): void {
            $table->dropColumn('worker');
        });
        Schema::dropIfExists('copied_files');
    }
};
