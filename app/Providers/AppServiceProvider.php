<?php

declare(strict_types=1);

namespace App\Providers;

use App\Database\ImmediateConnector;
use App\Database\KeptCache;
use App\Files\PluggedDevices;
use App\Files\Shelf;
use App\Files\Shelves;
use App\Http\KeptSessions;
use App\Http\ViewChoices;
use App\Http\ViewWords;
use App\Outside\Catalogue\Catalogue;
use App\Outside\Catalogue\HttpCatalogue;
use App\Outside\Discs\DiscDrive;
use App\Outside\Discs\TrayFolder;
use App\Outside\Players\Player;
use App\Outside\Players\PlayerFolders;
use App\Outside\Players\Players;
use App\Outside\Players\WritePlaylist;
use App\Outside\Publishing\Hosts;
use App\Presets\Queries\Presets;
use App\Processes\DecodersFile;
use App\Processes\QueueSignal;
use App\Processes\WaitingWorker;
use App\Results\Jobs\DrawResult;
use App\Results\Jobs\MakeResult;
use App\Results\ResultMade;
use App\Settings\Queries\KeptFree;
use App\Settings\Queries\Settings;
use App\Settings\Values\TrustedHosts;
use App\Sources\Jobs\AnalyzeTrack;
use App\Sources\Jobs\CopyFolderIn;
use App\Sources\Jobs\FetchCover;
use App\Sources\Jobs\FindBorders;
use App\Sources\Jobs\ReadSource;
use App\Sources\Recorders\RecorderFolders;
use App\Sources\Recorders\Recorders;
use App\Watching\Queries\FolderContents;
use App\Work\Claims;
use App\Work\DatabaseClaims;
use App\Work\WorkSignal;
use Illuminate\Cache\Repository;
use Illuminate\Contracts\Debug\ExceptionHandler;
use Illuminate\Contracts\Events\Dispatcher;
use Illuminate\Contracts\Foundation\Application;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Filesystem\Filesystem;
use Illuminate\Queue\Events\JobProcessing;
use Illuminate\Queue\Events\JobQueued;
use Illuminate\Queue\Worker;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\Event;
use Illuminate\Support\Facades\Route;
use Illuminate\Support\Facades\Session;
use Illuminate\Support\Facades\View;
use Illuminate\Support\ServiceProvider;
use Illuminate\View\View as BladeView;
use Octavox\Core\Codec\OutsideDecoders;

final class AppServiceProvider extends ServiceProvider
{
    /** What brings each kind of work to a worker. */
    private const JOBS = ['making' => MakeResult::class, 'reading' => ReadSource::class, 'borders' => FindBorders::class,
        'analysis' => AnalyzeTrack::class, 'copying' => CopyFolderIn::class, 'drawings' => DrawResult::class,
        'covers' => FetchCover::class];

    public function register(): void
    {
        $this->app->bind('db.connector.sqlite', ImmediateConnector::class);
        $this->app->scoped(Presets::class);
        $this->app->scoped(Settings::class);
        // It remembers what it saw as long as its process lives.
        $this->app->singleton(FolderContents::class);
        $this->app->singleton(QueueSignal::class);
        $this->app->bind(Claims::class, DatabaseClaims::class);
        $this->app->bind(WorkSignal::class, fn (): WorkSignal => new WorkSignal(self::JOBS, $this->app->make(QueueSignal::class)));
        $this->app->extend('queue.worker',
            fn (Worker $usual): Worker => new WaitingWorker($usual->getManager(), $this->app->make(Dispatcher::class),
                $this->app->make(ExceptionHandler::class), fn (): bool => false, fn () => app()->forgetScopedInstances()));
        $this->app->bind(DiscDrive::class, TrayFolder::ofHome(...));
        $this->app->bind(Catalogue::class, fn (): Catalogue => new HttpCatalogue(rtrim(config()->string('octavox.catalogue'), '/')));
        $this->app->bind(Hosts::class, Hosts::ofHome(...));
        $this->app->bind(Players::class, PlayerFolders::ofHome(...));
        $this->app->bind(PluggedDevices::class, Players::class);
        $this->app->bind(Recorders::class, RecorderFolders::ofHome(...));
        $this->app->bind(TrustedHosts::class,
            fn (): TrustedHosts => TrustedHosts::fromSettings(config()->string('octavox.names'), config()
                ->integer('octavox.port') ?: null));
        $this->app->bind(Shelves::class, fn (): Shelves => Shelves::fromSetting(config()->string('octavox.shelves'),
            config()->string('octavox.writable'))->with($this->app->make(Settings::class)->shelves())
            ->with(array_map(fn (Player $one): Shelf => $one->shelf(), $this->app->make(Players::class)->all())));
    }

    public function boot(): void
    {
        Route::pattern('source', '[0-9]{1,15}');
        Route::pattern('standing', '[0-9]{1,15}');
        Route::pattern('result', '[0-9]{1,15}');
        Route::pattern('order', '[0-9]{1,15}');
        Route::pattern('line', '[0-9]{1,15}');
        Route::pattern('kind', 'recipe|destination');
        Route::pattern('name', '[a-z0-9][a-z0-9-]{0,59}');
        Route::pattern('picture', '[0-9a-f]{64}\.(jpg|png)');
        Route::pattern('number', '[0-9]{1,6}');
        Route::pattern('upload', '[0-9a-f-]{36}');
        Event::listen(fn (JobQueued $job) => $this->app->make(QueueSignal::class)->ring((string) ($job->queue ?? 'making')));
        Event::listen(fn (ResultMade $made) => $this->app->make(WritePlaylist::class)->write($made->result->order));
        // A shelf may have been opened since this worker began.
        Event::listen(function (JobProcessing $job): void {
            $this->app->make(Settings::class)->forget();
            $this->app->make(Shelves::class)->fence();
            OutsideDecoders::by(DecodersFile::path());
        });
        $this->app->make(Shelves::class)->fence();
        View::share(['say' => new ViewWords, 'offer' => new ViewChoices]);
        View::composer('layout', fn (BladeView $view): BladeView => $view->with('low', $this->app->make(KeptFree::class)->says()));
        View::composer('results.row',
            fn (BladeView $view): BladeView => $view->with('isAllHeld', $this->app->make(Settings::class)->is(Settings::MAKING_HELD)));
        Session::extend('kept', fn (): KeptSessions => new KeptSessions($this->app->make(Filesystem::class),
            config()->string('session.files'), config()->integer('session.lifetime')));
        Cache::extend('kept', fn (Application $app, array $config): Repository => Cache::repository(
            new KeptCache($this->app->make(Filesystem::class), is_string($config['path'] ?? null) ? $config['path'] : '')));
        $this->limit($this->app->make(Settings::class));
        Model::shouldBeStrict(! $this->app->environment('production'));
    }

    /** What is set here takes the place of what is usual, not of what the environment says. */
    private function limit(Settings $settings): void
    {
        $gigabytes = $settings->number(Settings::UPLOAD_GIGABYTES);
        if ($gigabytes !== null && ! in_array(Settings::UPLOAD_GIGABYTES, config()->array('octavox.fixed'), true)) {
            config(['octavox.largest_upload' => $gigabytes * 1_000_000_000]);
        }
        $hours = $settings->number(Settings::UPLOAD_HOURS);
        if ($hours !== null && ! in_array(Settings::UPLOAD_HOURS, config()->array('octavox.fixed'), true)) {
            config(['octavox.upload_hours' => $hours]);
        }
    }
}
