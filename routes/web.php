<?php

declare(strict_types=1);

use App\Api\Controllers\DescriptionController;
use App\Orders\Pages\CoverController;
use App\Orders\Pages\LineController;
use App\Orders\Pages\OrderController;
use App\Orders\Pages\TagController;
use App\Outside\Pages\CatalogueController;
use App\Outside\Pages\DiscController;
use App\Outside\Pages\OutsideController;
use App\Outside\Pages\PlayerController;
use App\Outside\Pages\PublishController;
use App\Outside\Pages\WebPageController;
use App\Presets\Pages\PresetController;
use App\Results\Pages\BinController;
use App\Results\Pages\ResultController;
use App\Results\Pages\WorkController;
use App\Settings\Pages\HealthController;
use App\Settings\Pages\RoomController;
use App\Settings\Pages\SettingController;
use App\Sources\Pages\HeaderlessController;
use App\Sources\Pages\RecorderController;
use App\Sources\Pages\ShelfController;
use App\Sources\Pages\SourceController;
use App\Sources\Pages\UploadController;
use App\Watching\Pages\WatchedFolderController;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Route;

Route::redirect('/', '/sources');

Route::get('/sources', [SourceController::class, 'index'])->name('sources')->middleware('nothing-new:sources');
Route::get('/sources/{source}', [SourceController::class, 'show'])->name('source');
Route::get('/sources/{source}/headerless', [HeaderlessController::class, 'show'])->name('source.headerless');
Route::put('/sources/{source}/headerless', [HeaderlessController::class, 'update'])->name('source.state');
Route::post('/sources/{source}/twice', [SourceController::class, 'twice'])->name('source.twice');
Route::patch('/sources/{source}', [SourceController::class, 'update'])->name('source.update');
Route::delete('/sources/{source}', [SourceController::class, 'destroy'])->name('source.remove');
Route::post('/sources/many', [SourceController::class, 'many'])->name('sources.many');
Route::post('/sources/back', [SourceController::class, 'back'])->name('sources.back');

Route::get('/shelves', [ShelfController::class, 'index'])->name('shelves');
Route::get('/shelves/{shelf}', [ShelfController::class, 'show'])->name('shelf');
Route::post('/shelves/{shelf}/copy', [ShelfController::class, 'copy'])->name('shelf.copy');
Route::post('/shelves/{shelf}', [ShelfController::class, 'take'])->name('shelf.take');

Route::get('/shelves/{shelf}/disc', [DiscController::class, 'shelf'])->name('shelf.disc');
Route::post('/discs', [DiscController::class, 'take'])->name('disc.take');
Route::get('/outside', [OutsideController::class, 'index'])->name('outside');
Route::get('/outside/drive', [DiscController::class, 'drive'])->name('drive');
Route::post('/outside/drive', [DiscController::class, 'move'])->name('drive.move');
Route::get('/outside/players', [PlayerController::class, 'index'])->name('players');
Route::post('/outside/players', [PlayerController::class, 'send'])->name('player.send');
Route::post('/outside/players/remove', [PlayerController::class, 'remove'])->name('player.remove');
Route::post('/outside/players/again', [PlayerController::class, 'again'])->name('player.again');
Route::get('/outside/page', [WebPageController::class, 'show'])->name('page');
Route::post('/outside/page', [WebPageController::class, 'make'])->name('page.make');
Route::get('/outside/page/preview', [WebPageController::class, 'preview'])->name('page.preview');
Route::get('/outside/publish', [PublishController::class, 'index'])->name('publish');
Route::post('/outside/publish', [PublishController::class, 'offer'])->name('publish.offer');
Route::post('/outside/publish/withdraw', [PublishController::class, 'withdraw'])->name('publish.withdraw');
Route::get('/hosted/{host}/feed.xml', [PublishController::class, 'feed'])->name('publish.feed');
Route::get('/hosted/{host}/{file}', [PublishController::class, 'episode'])->name('publish.episode');
Route::get('/outside/catalogue', [CatalogueController::class, 'show'])->name('catalogue');
Route::post('/outside/catalogue', [CatalogueController::class, 'accept'])->name('catalogue.accept');
Route::delete('/sources/{source}/catalogue', [CatalogueController::class, 'forget'])->name('catalogue.forget');
Route::get('/outside/recorders', [RecorderController::class, 'index'])->name('recorders');
Route::post('/outside/recorders', [RecorderController::class, 'copy'])->name('recorder.copy');

Route::post('/uploads', [UploadController::class, 'create'])->name('uploads');
Route::patch('/uploads/{upload}', [UploadController::class, 'append']);
Route::delete('/uploads/{upload}', [UploadController::class, 'terminate']);

Route::get('/order', [OrderController::class, 'current'])->name('order.current');
Route::get('/orders', [OrderController::class, 'index'])->name('orders');
Route::post('/orders', [OrderController::class, 'store'])->name('orders.store');
Route::get('/orders/{order}', [OrderController::class, 'show'])->name('order');
Route::patch('/orders/{order}', [OrderController::class, 'update'])->name('order.update');
Route::patch('/orders/{order}/alike', [LineController::class, 'alike'])->name('order.alike');
Route::delete('/orders/{order}', [OrderController::class, 'destroy'])->name('order.remove');
Route::post('/orders/{order}/place', [OrderController::class, 'place'])->name('order.place');
Route::post('/orders/{order}/recipe', [OrderController::class, 'keep'])->name('order.recipe');
Route::post('/orders/{order}/again', [OrderController::class, 'again'])->name('order.again');
Route::get('/orders/{order}/tags', [TagController::class, 'show'])->name('order.tags');
Route::post('/orders/{order}/tags', [TagController::class, 'update'])->name('order.tags.update');
Route::patch('/orders/{order}/tags', [TagController::class, 'type'])->name('order.tags.type');
Route::post('/orders/{order}/tags/undo', [TagController::class, 'undo'])->name('order.tags.undo');
Route::post('/orders/{order}/cover', [CoverController::class, 'update'])->name('order.cover');
Route::get('/pictures/{picture}', [CoverController::class, 'show'])->name('picture');
Route::post('/orders/{order}/marks', [LineController::class, 'mark'])->name('order.mark');
Route::delete('/orders/{order}/lines', [LineController::class, 'destroy'])->name('order.lines.remove');
Route::scopeBindings()->group(function (): void {
    Route::get('/orders/{order}/lines/{line}', [LineController::class, 'show'])->name('line');
    Route::patch('/orders/{order}/lines/{line}', [LineController::class, 'update'])->name('line.update');
});
Route::post('/ticks', [LineController::class, 'tick'])->name('ticks');
Route::post('/ticks/order', [LineController::class, 'choose'])->name('ticks.order');

Route::get('/{kind}s', [PresetController::class, 'index'])->name('presets');
Route::post('/{kind}s/import', [PresetController::class, 'import'])->name('preset.import');
Route::get('/{kind}s/{name}', [PresetController::class, 'show'])->name('preset');
Route::put('/{kind}s/{name}', [PresetController::class, 'update'])->name('preset.update');
Route::delete('/{kind}s/{name}', [PresetController::class, 'destroy'])->name('preset.remove');
Route::post('/{kind}s/{name}/copy', [PresetController::class, 'copy'])->name('preset.copy');
Route::post('/{kind}s/{name}/star', [PresetController::class, 'star'])->name('preset.star');
Route::get('/{kind}s/{name}/file', [PresetController::class, 'export'])->name('preset.file');

Route::get('/standing', [WatchedFolderController::class, 'index'])->name('standing');
Route::post('/standing', [WatchedFolderController::class, 'store'])->name('standing.store');
Route::get('/standing/{standing}', [WatchedFolderController::class, 'show'])->name('standing.show');
Route::put('/standing/{standing}', [WatchedFolderController::class, 'update'])->name('standing.update');
Route::post('/standing/{standing}/work', [WatchedFolderController::class, 'work'])->name('standing.work');
Route::delete('/standing/{standing}', [WatchedFolderController::class, 'destroy'])->name('standing.remove');
Route::get('/settings', [SettingController::class, 'show'])->name('settings');
Route::put('/settings', [SettingController::class, 'update'])->name('settings.update');
Route::post('/settings/shelves', [SettingController::class, 'open'])->name('settings.open');
Route::post('/settings/shelf', [SettingController::class, 'shelf'])->name('settings.shelf');
Route::get('/up', [HealthController::class, 'show'])->name('health');
Route::get('/room', [RoomController::class, 'show'])->name('room');
Route::post('/room', [RoomController::class, 'free'])->name('room.free');
Route::get('/bin', [BinController::class, 'show'])->name('bin');
Route::post('/bin', [BinController::class, 'update'])->name('bin.update');
Route::post('/settings/decoders', [SettingController::class, 'decoder'])->name('settings.decoder');
Route::post('/settings/tokens', [SettingController::class, 'issue'])->name('settings.token');
Route::delete('/settings/tokens/{number}', [SettingController::class, 'withdraw'])->name('settings.token.withdraw');
Route::delete('/settings/recorders/{extension}', [SettingController::class, 'forget'])->name('settings.recorder');
Route::get('/interface', [DescriptionController::class, 'page'])->name('interface');
Route::get('/work', [WorkController::class, 'show'])->name('work')->middleware('nothing-new:work');
Route::get('/mark/{number}.svg', [WorkController::class, 'mark'])->name('work.mark');
Route::post('/work', [WorkController::class, 'everything'])->name('work.hold');
Route::post('/orders/{order}/work', [WorkController::class, 'order'])->name('order.work');
Route::post('/results/{result}/work', [WorkController::class, 'result'])->name('result.work');
Route::get('/results', [ResultController::class, 'index'])->name('results');
Route::get('/results/{result}/receipt', [ResultController::class, 'receipt'])->name('result.receipt');
Route::get('/results/changes', [ResultController::class, 'changes'])->name('results.changes');
Route::post('/results/many', [ResultController::class, 'many'])->name('results.many');
Route::post('/results/{result}/again', [ResultController::class, 'again'])->name('result.again');
Route::post('/results/{result}/cancel', [ResultController::class, 'cancel'])->name('result.cancel');
Route::post('/results/{result}/retry', [ResultController::class, 'retry'])->name('result.retry');

// Addresses of former versions.
Route::get('/deliveries', fn (Request $request): RedirectResponse => redirect()->route('results', $request->query(), 301));
Route::get('/deliveries/{result}/{rest}', fn (string $result,
    string $rest): RedirectResponse => redirect("/results/$result/".str_replace('ribbon', 'waveform', $rest), 301))->where('rest',
        '[A-Za-z0-9/._-]{1,200}');
