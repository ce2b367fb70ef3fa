<?php

declare(strict_types=1);

use App\Api\Controllers\DescriptionController;
use App\Api\Controllers\OrderController;
use App\Api\Controllers\PresetController;
use App\Api\Controllers\ResultController;
use App\Api\Controllers\SourceController;
use App\Sources\Pages\UploadController;
use Illuminate\Support\Facades\Route;

// The interface for scripts, below /api/v1. Each group is for holders of a token that allows it.
Route::get('/', [DescriptionController::class, 'index']);
Route::get('/openapi.json', [DescriptionController::class, 'document'])->name('api.document');
Route::options('/uploads', [UploadController::class, 'abilities']);

Route::middleware(['token:read', 'plain'])->group(function (): void {
    Route::get('/shelves', [SourceController::class, 'shelves']);
    Route::get('/shelves/{shelf}', [SourceController::class, 'shelf']);
    Route::get('/sources', [SourceController::class, 'index']);
    Route::get('/sources/{source}', [SourceController::class, 'show']);
    Route::get('/sources/{source}/reading', [SourceController::class, 'reading']);
    Route::get('/sources/{source}/analyses', [SourceController::class, 'analyses']);
    Route::get('/sources/{source}/file', [SourceController::class, 'file']);
    Route::get('/destinations/{name}/fits', [SourceController::class, 'fits']);
    Route::get('/{kind}s', [PresetController::class, 'index']);
    Route::get('/{kind}s/{name}', [PresetController::class, 'show'])->name('api.preset');
    Route::get('/orders', [OrderController::class, 'index']);
    Route::get('/orders/{order}', [OrderController::class, 'show'])->name('api.order');
    Route::get('/orders/{order}/results', [OrderController::class, 'results']);
    Route::get('/results', [ResultController::class, 'index']);
    Route::get('/results/{result}', [ResultController::class, 'show']);
    Route::get('/results/{result}/file', [ResultController::class, 'file']);
    Route::get('/events', [DescriptionController::class, 'events']);
});
Route::middleware(['token:bring', 'plain', 'idempotent'])->group(function (): void {
    Route::post('/sources', [SourceController::class, 'store']);
    Route::delete('/sources/{source}', [SourceController::class, 'destroy']);
    Route::post('/uploads', [UploadController::class, 'create']);
});
Route::middleware(['token:bring', 'plain'])->group(function (): void {
    Route::get('/uploads/{upload}', [SourceController::class, 'upload']);
    // After the other, which answers to HEAD as well.
    Route::match(['HEAD'], '/uploads/{upload}', [UploadController::class, 'offset']);
    Route::patch('/uploads/{upload}', [UploadController::class, 'append']);
    Route::delete('/uploads/{upload}', [UploadController::class, 'terminate']);
});
Route::middleware(['token:order', 'plain', 'idempotent'])->group(function (): void {
    Route::post('/plans', [OrderController::class, 'plan']);
    Route::post('/orders', [OrderController::class, 'store']);
    Route::patch('/orders/{order}', [OrderController::class, 'update']);
    Route::post('/orders/{order}/cancel', [OrderController::class, 'cancel']);
    Route::post('/orders/{order}/retry', [OrderController::class, 'retry']);
    Route::patch('/results/{result}', [ResultController::class, 'update']);
    Route::post('/results/{result}/cancel', [ResultController::class, 'cancel']);
    Route::post('/results/{result}/retry', [ResultController::class, 'retry']);
    Route::post('/results/{result}/restore', [ResultController::class, 'restore']);
    Route::delete('/results/{result}', [ResultController::class, 'destroy']);
});
Route::middleware(['token:keep', 'plain', 'idempotent'])->group(function (): void {
    Route::post('/{kind}s', [PresetController::class, 'store']);
    Route::put('/{kind}s/{name}', [PresetController::class, 'update']);
    Route::delete('/{kind}s/{name}', [PresetController::class, 'destroy']);
});
