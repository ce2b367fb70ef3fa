<?php

declare(strict_types=1);

namespace App\Settings\Pages;

use App\Upkeep\Health;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

/** Tells whoever watches over Octavox, a person or a program, whether it is well: 200, or 503 where something is wrong. */
final class HealthController
{
    public function show(Request $request, Health $health): Response|JsonResponse
    {
        $parts = $health->parts();
        $failed = $parts['database'] === '' ? $health->failedJobs() : collect();
        $status = array_filter($parts) === [] ? 200 : 503;
        if (! str_contains((string) $request->headers->get('Accept'), 'text/html')) {
            return response()->json(['well' => $status === 200, 'parts' => array_map(fn (string $says): string => $says === '' ? 'well'
                : $says, $parts),
                'failed_jobs' => $failed->count()], $status);
        }

        return response()->view('health', ['parts' => $parts, 'failed' => $failed], $status);
    }
}
