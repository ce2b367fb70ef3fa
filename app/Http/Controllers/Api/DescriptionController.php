<?php

declare(strict_types=1);

namespace App\Http\Controllers\Api;

use App\Http\Api\Description;
use App\Http\Api\EventStream;
use App\Http\Api\Examples;
use App\Http\Api\Page;
use App\Http\Asked;
use Illuminate\Contracts\View\View;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\StreamedResponse;

/** What the interface for scripts is, and what happens. */
final class DescriptionController
{
    public function index(Description $description): JsonResponse
    {
        return Page::document($description->index());
    }

    /** OpenAPI 3.1. */
    public function document(Description $description): JsonResponse
    {
        return Page::document($description->document());
    }

    /** The same for people, with examples that run. */
    public function page(Request $request, Description $description): View
    {
        return view('interface', ['description' => $description, 'address' => $request->getSchemeAndHttpHost(),
            'examples' => Examples::all($request->getSchemeAndHttpHost())]);
    }

    public function events(Request $request): StreamedResponse
    {
        return EventStream::since((string) ($request->headers->get('Last-Event-ID') ?? Asked::text($request, 'since')),
            Asked::number($request, 'order') ?: null, Asked::number($request, 'seconds', 60));
    }
}
