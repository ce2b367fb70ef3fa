<?php

declare(strict_types=1);

namespace App\Api\Controllers;

use App\Api\ApiDescription;
use App\Api\EventStream;
use App\Api\Examples;
use App\Api\Page;
use App\Http\RequestInput;
use Illuminate\Contracts\View\View;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\StreamedResponse;

/** What the interface for scripts is, and what happens. */
final class DescriptionController
{
    public function index(ApiDescription $description): JsonResponse
    {
        return Page::document($description->index());
    }

    /** OpenAPI 3.1. */
    public function document(ApiDescription $description): JsonResponse
    {
        return Page::document($description->document());
    }

    /** The same for people, with examples that run. */
    public function page(Request $request, ApiDescription $description): View
    {
        return view('interface', ['description' => $description, 'address' => $request->getSchemeAndHttpHost(),
            'examples' => Examples::all($request->getSchemeAndHttpHost())]);
    }

    public function events(Request $request): StreamedResponse
    {
        return EventStream::since((string) ($request->headers->get('Last-Event-ID') ?? RequestInput::text($request, 'since')),
            RequestInput::number($request, 'order') ?: null, RequestInput::number($request, 'seconds', 60));
    }
}
