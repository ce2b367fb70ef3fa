<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\File;
use Illuminate\Support\Facades\Schema;

return new class extends Migration
{
    public function up(): void
    {
        // Jobs are named after their classes, which have other names now; whoever is waiting gets a job again at the start.
        DB::table('jobs')->delete();
        Schema::rename('deliveries', 'results');
        Schema::table('tracks', function (Blueprint $table): void {
            $table->renameColumn('form', 'format');
            $table->renameColumn('heard', 'analysis');
            $table->renameColumn('heard_findings', 'analysis_findings');
            $table->renameColumn('heard_says', 'analysis_error');
        });
        Schema::table('orders', function (Blueprint $table): void {
            // What the sheet's address said when the order was placed, and the spec that it meant.
            $table->renameColumn('form', 'sheet');
            $table->json('spec')->nullable();
        });
        Schema::create('packet_borders', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('source_id')->constrained()->cascadeOnDelete();
            $table->string('query', 60);
            $table->json('borders')->nullable();
            $table->text('error')->nullable();
            $table->timestamps();
            $table->unique(['source_id', 'query']);
        });
        $this->rename('ribbons', 'ribbon', 'waveforms', 'waveform');
    }

    public function down(): void
    {
        $this->rename('waveforms', 'waveform', 'ribbons', 'ribbon');
        Schema::dropIfExists('packet_borders');
        Schema::table('orders', function (Blueprint $table): void {
            $table->dropColumn('spec');
            $table->renameColumn('sheet', 'form');
        });
        Schema::table('tracks', function (Blueprint $table): void {
            $table->renameColumn('format', 'form');
            $table->renameColumn('analysis', 'heard');
            $table->renameColumn('analysis_findings', 'heard_findings');
            $table->renameColumn('analysis_error', 'heard_says');
        });
        Schema::rename('results', 'deliveries');
    }

    private function rename(string $from, string $fromExtension, string $to, string $toExtension): void
    {
        $home = config()->string('octavox.home');
        foreach (File::isDirectory("$home/$from") ? File::files("$home/$from") : [] as $file) {
            if ($file->getExtension() === $fromExtension) {
                File::ensureDirectoryExists("$home/$to");
                @rename($file->getPathname(), "$home/$to/".$file->getBasename($fromExtension).$toExtension);
            }
        }
        // Unless something else lies in it.
        @rmdir("$home/$from");
    }
};
