<?php

declare(strict_types=1);

use App\Results\Pages\ResultController;
use App\Sources\Pages\HeaderlessController;
use App\Sources\Pages\SourceController;
use App\Sources\Pages\TrackController;
use App\Sources\Pages\UploadController;
use Illuminate\Support\Facades\Route;

// What is asked for by players, scripts and pictures in pages: no session is begun for it.
Route::get('/sources/{source}/media', [SourceController::class, 'media'])->name('source.media');
Route::get('/sources/{source}/cover', [SourceController::class, 'cover'])->name('source.cover');
Route::get('/sources/{source}/tracks/{number}/waveform', [TrackController::class, 'waveform'])->name('track.waveform');
Route::get('/sources/{source}/tracks/{number}/sound', [TrackController::class, 'sound'])->name('track.sound');
Route::get('/sources/{source}/tracks/{number}/hear', [TrackController::class, 'hear'])->name('track.hear');
Route::get('/sources/{source}/tracks/{number}/silences', [TrackController::class, 'silences'])->name('track.silences');
Route::get('/sources/{source}/headerless/sound', [HeaderlessController::class, 'sound'])->name('source.headerless.sound');
Route::options('/uploads', [UploadController::class, 'abilities']);
Route::match(['HEAD', 'GET'], '/uploads/{upload}', [UploadController::class, 'offset'])->name('upload');
Route::get('/results/{result}/file', [ResultController::class, 'download'])->name('result.file');
Route::get('/results/{result}/log', [ResultController::class, 'log'])->name('result.log');
Route::get('/results/{result}/media', [ResultController::class, 'media'])->name('result.media');
Route::get('/results/{result}/hear/{number}', [ResultController::class, 'hear'])->name('result.hear');
Route::get('/results/{result}/waveform/{side}', [ResultController::class, 'waveform'])->name('result.waveform')
    ->whereIn('side', ['before', 'after']);
Route::get('/results/{result}/waveform/{side}/picture', [ResultController::class, 'picture'])->name('result.picture')
    ->whereIn('side', ['before', 'after']);

// Addresses of former versions.
Route::get('/sources/{source}/tracks/{number}/ribbon',
    fn (string $source, string $number) => redirect("/sources/$source/tracks/$number/waveform", 301));
