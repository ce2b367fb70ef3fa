<?php

declare(strict_types=1);

use App\Http\Controllers\OrderController;
use App\Http\Controllers\ResultController;
use App\Http\Controllers\ShelfController;
use App\Http\Controllers\SourceController;
use App\Http\Controllers\UploadController;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
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

Route::get('/results', [ResultController::class, 'index'])->name('results');
Route::get('/results/changes', [ResultController::class, 'changes'])->name('results.changes');
Route::post('/results/{result}/cancel', [ResultController::class, 'cancel'])->name('result.cancel');
Route::post('/results/{result}/retry', [ResultController::class, 'retry'])->name('result.retry');

// Addresses of former versions.
Route::get('/deliveries', fn (Request $request): RedirectResponse => redirect()->route('results', $request->query(), 301));
Route::get('/deliveries/{result}/{rest}', fn (string $result,
    string $rest): RedirectResponse => redirect("/results/$result/".str_replace('ribbon', 'waveform', $rest), 301))->where('rest', '.*');
