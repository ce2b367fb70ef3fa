<?php

declare(strict_types=1);

namespace App\Providers;

use App\Values\Shelves;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Support\ServiceProvider;

final class AppServiceProvider extends ServiceProvider
{
    public function register(): void
    {
        $this->app->bind(Shelves::class, fn (): Shelves => Shelves::fromSetting((string) config('octavox.shelves')));
    }

    public function boot(): void
    {
        Model::shouldBeStrict(! $this->app->environment('production'));
    }
}
