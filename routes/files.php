<?php

declare(strict_types=1);

use App\Http\Controllers\ResultController;
use App\Http\Controllers\SourceController;
use App\Http\Controllers\TrackController;
use App\Http\Controllers\UploadController;
use Illuminate\Support\Facades\Route;

// What is asked for by players, scripts and pictures in pages: no session is begun for it.
Route::get('/sources/{source}/media', [SourceController::class, 'media'])->name('source.media');
Route::get('/sources/{source}/cover', [SourceController::class, 'cover'])->name('source.cover');
Route::get('/sources/{source}/tracks/{number}/ribbon', [TrackController::class, 'ribbon'])->name('track.ribbon');
Route::get('/sources/{source}/tracks/{number}/sound', [TrackController::class, 'sound'])->name('track.sound');
Route::get('/sources/{source}/tracks/{number}/hear', [TrackController::class, 'hear'])->name('track.hear');
Route::get('/sources/{source}/tracks/{number}/silences', [TrackController::class, 'silences'])->name('track.silences');
Route::options('/uploads', [UploadController::class, 'abilities']);
Route::match(['HEAD', 'GET'], '/uploads/{upload}', [UploadController::class, 'offset'])->name('upload');
Route::get('/deliveries/{delivery}/file', [ResultController::class, 'download'])->name('delivery.file');
Route::get('/deliveries/{delivery}/media', [ResultController::class, 'media'])->name('delivery.media');
Route::get('/deliveries/{delivery}/hear/{number}', [ResultController::class, 'hear'])->name('delivery.hear');
Route::get('/deliveries/{delivery}/ribbon/{side}', [ResultController::class, 'ribbon'])->name('delivery.ribbon')->whereIn('side', ['before', 'after']);
