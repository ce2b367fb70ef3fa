<?php

declare(strict_types=1);

use App\Http\Controllers\DeliveryController;
use App\Http\Controllers\ListenController;
use App\Http\Controllers\SourceController;
use App\Http\Controllers\UploadController;
use Illuminate\Support\Facades\Route;

// What is asked for by players, scripts and pictures in pages: no session is begun for it.
Route::get('/sources/{source}/media', [SourceController::class, 'media'])->name('source.media');
Route::get('/sources/{source}/cover', [SourceController::class, 'cover'])->name('source.cover');
Route::get('/sources/{source}/tracks/{number}/ribbon', [ListenController::class, 'ribbon'])->name('track.ribbon');
Route::get('/sources/{source}/tracks/{number}/sound', [ListenController::class, 'sound'])->name('track.sound');
Route::get('/sources/{source}/tracks/{number}/hear', [ListenController::class, 'hear'])->name('track.hear');
Route::get('/sources/{source}/tracks/{number}/silences', [ListenController::class, 'silences'])->name('track.silences');
Route::options('/uploads', [UploadController::class, 'abilities']);
Route::match(['HEAD', 'GET'], '/uploads/{upload}', [UploadController::class, 'offset'])->name('upload');
Route::get('/deliveries/{delivery}/file', [DeliveryController::class, 'download'])->name('delivery.file');
Route::get('/deliveries/{delivery}/media', [DeliveryController::class, 'media'])->name('delivery.media');
Route::get('/deliveries/{delivery}/hear/{number}', [DeliveryController::class, 'hear'])->name('delivery.hear');
Route::get('/deliveries/{delivery}/ribbon/{side}', [DeliveryController::class, 'ribbon'])->name('delivery.ribbon')->whereIn('side', ['before', 'after']);
