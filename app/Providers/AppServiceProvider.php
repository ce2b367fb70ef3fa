<?php

declare(strict_types=1);

namespace App\Providers;

use App\Database\ImmediateConnector;
use App\Values\Shelves;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Support\ServiceProvider;

final class AppServiceProvider extends ServiceProvider
{
    public function register(): void
    {
        $this->app->bind('db.connector.sqlite', ImmediateConnector::class);
        $this->app->bind(Shelves::class, fn (): Shelves => Shelves::fromSetting((string) config('octavox.shelves')));
    }

    public function boot(): void
    {
        Model::shouldBeStrict(! $this->app->environment('production'));
    }
}
