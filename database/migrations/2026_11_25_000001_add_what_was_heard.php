<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

return new class extends Migration
{
    public function up(): void
    {
        Schema::table('tracks', function (Blueprint $table): void {
            $table->json('heard')->nullable();
            $table->json('heard_findings')->nullable();
            $table->text('heard_says')->nullable();
            $table->unique(['source_id', 'number']);
        });
    }

    public function down(): void
    {
        Schema::table('tracks', function (Blueprint $table): void {
            $table->dropUnique(['source_id', 'number']);
            $table->dropColumn(['heard', 'heard_findings', 'heard_says']);
        });
    }
};
