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
            // The same for files of the same content.
            $table->string('content', 64)->nullable()->index();
            $table->unsignedBigInteger('same_as')->nullable();
        });
    }

    public function down(): void
    {
        Schema::table('sources', function (Blueprint $table): void {
            $table->dropIndex(['content']);
            $table->dropColumn(['content', 'same_as']);
        });
    }
};
