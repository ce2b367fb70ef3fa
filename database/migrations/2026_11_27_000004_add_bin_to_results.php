<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

return new class extends Migration
{
    public function up(): void
    {
        Schema::table('results', function (Blueprint $table): void {
            // Where the file lies since it was put into the bin.
            $table->text('binned')->nullable();
        });
    }

    public function down(): void
    {
        Schema::table('results', fn (Blueprint $table) => $table->dropColumn('binned'));
    }
};
