<?php

declare(strict_types=1);

use App\Http\Controllers\DeliveryController;
use App\Http\Controllers\ListenController;
use App\Http\Controllers\OrderController;
use App\Http\Controllers\ShelfController;
use App\Http\Controllers\SourceController;
use App\Http\Controllers\UploadController;
use Illuminate\Support\Facades\Route;

Route::redirect('/', '/sources');

Route::get('/sources', [SourceController::class, 'index'])->name('sources');
Route::get('/sources/{source}', [SourceController::class, 'show'])->name('source')->whereNumber('source');
Route::get('/sources/{source}/media', [SourceController::class, 'media'])->name('source.media')->whereNumber('source');
Route::get('/sources/{source}/cover', [SourceController::class, 'cover'])->name('source.cover')->whereNumber('source');
Route::get('/sources/{source}/tracks/{number}/ribbon', [ListenController::class, 'ribbon'])->name('track.ribbon')->whereNumber(['source', 'number']);
Route::get('/sources/{source}/tracks/{number}/sound', [ListenController::class, 'sound'])->name('track.sound')->whereNumber(['source', 'number']);
Route::get('/sources/{source}/tracks/{number}/silences', [ListenController::class, 'silences'])->name('track.silences')->whereNumber(['source', 'number']);
Route::delete('/sources/{source}', [SourceController::class, 'destroy'])->name('source.remove')->whereNumber('source');

Route::get('/shelves', [ShelfController::class, 'index'])->name('shelves');
Route::get('/shelves/{shelf}', [ShelfController::class, 'show'])->name('shelf');
Route::post('/shelves/{shelf}', [ShelfController::class, 'take'])->name('shelf.take');

Route::options('/uploads', [UploadController::class, 'abilities']);
Route::post('/uploads', [UploadController::class, 'create'])->name('uploads');
Route::match(['HEAD', 'GET'], '/uploads/{upload}', [UploadController::class, 'offset'])->name('upload');
Route::patch('/uploads/{upload}', [UploadController::class, 'append']);
Route::delete('/uploads/{upload}', [UploadController::class, 'terminate']);

Route::get('/order', [OrderController::class, 'sheet'])->name('order');
Route::post('/orders', [OrderController::class, 'place'])->name('orders.place');

Route::get('/deliveries', [DeliveryController::class, 'index'])->name('deliveries');
Route::get('/deliveries/changes', [DeliveryController::class, 'changes'])->name('deliveries.changes');
Route::post('/deliveries/{delivery}/cancel', [DeliveryController::class, 'cancel'])->name('delivery.cancel')->whereNumber('delivery');
Route::post('/deliveries/{delivery}/retry', [DeliveryController::class, 'retry'])->name('delivery.retry')->whereNumber('delivery');
Route::get('/deliveries/{delivery}/file', [DeliveryController::class, 'download'])->name('delivery.file')->whereNumber('delivery');
Route::get('/deliveries/{delivery}/media', [DeliveryController::class, 'media'])->name('delivery.media')->whereNumber('delivery');
Route::get('/deliveries/{delivery}/ribbon/{side}', [DeliveryController::class, 'ribbon'])->name('delivery.ribbon')->whereNumber('delivery')->whereIn('side', ['before', 'after']);
