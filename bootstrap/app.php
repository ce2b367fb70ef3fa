<?php

declare(strict_types=1);

use App\Console\Keep;
use App\Console\LoadDemo;
use App\Console\Orders;
use App\Console\TidyCommand;
use App\Http\Middleware\BoundedSending;
use App\Http\Middleware\Idempotency;
use App\Http\Middleware\NothingNew;
use App\Http\Middleware\PageToken;
use App\Http\Middleware\RequireToken;
use App\Http\Middleware\SecurityHeaders;
use App\Http\Middleware\TrustedOrigins;
use App\Http\PlainErrors;
use Illuminate\Foundation\Application;
use Illuminate\Foundation\Configuration\Exceptions;
use Illuminate\Foundation\Configuration\Middleware;
use Illuminate\Foundation\Http\Middleware\ValidateCsrfToken;
use Illuminate\Http\Middleware\HandleCors;
use Illuminate\Routing\Middleware\SubstituteBindings;
use Illuminate\Support\Facades\Route;

return Application::configure(basePath: dirname(__DIR__))
    ->withRouting(web: __DIR__.'/../routes/web.php', then: function (): void {
        Route::middleware('plain')->group(base_path('routes/files.php'));
        Route::prefix('api/v1')->group(base_path('routes/interface.php'));
    })
    ->withCommands([Keep::class, TidyCommand::class, LoadDemo::class, Orders::class])
    ->withMiddleware(function (Middleware $middleware): void {
        $middleware->remove(HandleCors::class);
        $middleware->prepend([SecurityHeaders::class, BoundedSending::class, TrustedOrigins::class]);
        // The token travels in the page itself; a cookie of it would be shared by all servers of this machine.
        $middleware->web(replace: [ValidateCsrfToken::class => PageToken::class]);
        $middleware->alias(['token' => RequireToken::class, 'idempotent' => Idempotency::class, 'nothing-new' => NothingNew::class]);
        $middleware->group('plain', [SubstituteBindings::class]);
        // The length of an upload's part is limited by the upload itself, not by form rules.
        $middleware->trimStrings(except: [fn ($request) => $request->is('uploads*', 'api/*')]);
    })
    ->withExceptions(function (Exceptions $exceptions): void {
        PlainErrors::register($exceptions);
    })
    ->create();
