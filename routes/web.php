<?php

declare(strict_types=1);

use App\Http\Controllers\OrderController;
use App\Http\Controllers\ResultController;
use App\Http\Controllers\ShelfController;
use App\Http\Controllers\SourceController;
use App\Http\Controllers\UploadController;
use Illuminate\Support\Facades\Route;

Route::redirect('/', '/sources');

Route::get('/sources', [SourceController::class, 'index'])->name('sources');
Route::get('/sources/{source}', [SourceController::class, 'show'])->name('source');
Route::delete('/sources/{source}', [SourceController::class, 'destroy'])->name('source.remove');

Route::get('/shelves', [ShelfController::class, 'index'])->name('shelves');
Route::get('/shelves/{shelf}', [ShelfController::class, 'show'])->name('shelf');
Route::post('/shelves/{shelf}', [ShelfController::class, 'take'])->name('shelf.take');

Route::post('/uploads', [UploadController::class, 'create'])->name('uploads');
Route::patch('/uploads/{upload}', [UploadController::class, 'append']);
Route::delete('/uploads/{upload}', [UploadController::class, 'terminate']);

Route::get('/order', [OrderController::class, 'sheet'])->name('order');
Route::post('/orders', [OrderController::class, 'place'])->name('orders.place');

Route::get('/deliveries', [ResultController::class, 'index'])->name('deliveries');
Route::get('/deliveries/changes', [ResultController::class, 'changes'])->name('deliveries.changes');
Route::post('/deliveries/{delivery}/cancel', [ResultController::class, 'cancel'])->name('delivery.cancel');
Route::post('/deliveries/{delivery}/retry', [ResultController::class, 'retry'])->name('delivery.retry');
