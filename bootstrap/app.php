<?php

declare(strict_types=1);

use App\Console\LoadDemo;
use App\Console\Recover;
use App\Console\Tidy;
use App\Http\PlainErrors;
use Illuminate\Foundation\Application;
use Illuminate\Foundation\Configuration\Exceptions;
use Illuminate\Foundation\Configuration\Middleware;
use Illuminate\Http\Middleware\HandleCors;

return Application::configure(basePath: dirname(__DIR__))
    ->withRouting(web: __DIR__.'/../routes/web.php')
    ->withCommands([Recover::class, Tidy::class, LoadDemo::class])
    ->withMiddleware(function (Middleware $middleware): void {
        $middleware->remove(HandleCors::class);
        // The length of an upload's part is limited by the upload itself, not by form rules.
        $middleware->trimStrings(except: [fn ($request) => $request->is('uploads*')]);
    })
    ->withExceptions(function (Exceptions $exceptions): void {
        PlainErrors::register($exceptions);
    })
    ->create();
