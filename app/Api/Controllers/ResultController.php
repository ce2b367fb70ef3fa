<?php

declare(strict_types=1);

namespace App\Api\Controllers;

use App\Api\Body;
use App\Api\Documents;
use App\Api\Page;
use App\Api\Rows;
use App\Files\MediaType;
use App\Http\OpenedFile;
use App\Http\Problem;
use App\Http\RequestInput;
use App\Results\Actions\BinResult;
use App\Results\Actions\ChangeResult;
use App\Results\Actions\HoldWork;
use App\Results\Models\Result;
use App\Results\Pages\Archive;
use App\Results\Values\ResultState;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Octavox\Core\Plan\PlanUnreadable;

/** Results, for scripts. */
final class ResultController
{
    public function index(Request $request, Rows $rows): JsonResponse
    {
        $state = ResultState::tryFrom(RequestInput::text($request, 'state'));
        if ($state === null && RequestInput::text($request, 'state') !== '') {
            Problem::throw(400, 'invalid', 'There is no such state of a result.', ['parameter' => 'state']);
        }
        $order = RequestInput::number($request, 'order');

        return Page::of($request, $rows->results($state, $order > 0 ? $order : null), Documents::result(...));
    }

    public function show(Result $result): JsonResponse
    {
        return Page::document(Documents::result($result));
    }

    /** @throws PlanUnreadable */
    public function file(Result $result): OpenedFile
    {
        if (! $result->isThere()) {
            Problem::throw(404, 'not-there', 'There is no file of this result: it is not done, or it was taken away.');
        }
        $response = OpenedFile::of((string) $result->path, ['Content-Type' => MediaType::name($result->plannedAs()->target->container,
            $result->isVideo()), 'Cache-Control' => 'private, no-store']);
        $response->setContentDisposition('attachment', basename((string) $result->path),
            Archive::plain(basename((string) $result->path)));

        return $response;
    }

    /** Pauses it or has it go on, before the others of its order or after them. */
    public function update(Request $request, Result $result, HoldWork $hold): JsonResponse
    {
        $body = Body::read($request);
        is_bool($body['held'] ?? null) && $hold->result($result, $body['held']);
        match ($body['turn'] ?? null) {
            'first' => $hold->turn($result, true),
            'last' => $hold->turn($result, false),
            null => null,
            default => Problem::throw(422, 'invalid', 'A result comes first or last; nothing was changed.', ['pointer' => '/turn']),
        };

        return $this->show($result->refresh());
    }

    public function cancel(Result $result, ChangeResult $change): JsonResponse
    {
        $change->cancel($result);

        return $this->show($result);
    }

    public function retry(Result $result, ChangeResult $change): JsonResponse
    {
        $change->retry($result);

        return $this->show($result);
    }

    /** Into the bin, where its file comes back from. */
    public function destroy(Result $result, BinResult $bin): JsonResponse
    {
        if (! $bin->bin($result)) {
            Problem::throw(409, 'not-binned', 'The file of this result is not there, or lies on another drive than Octavox keeps its bin; '
                .'nothing was changed.');
        }

        return $this->show($result->refresh());
    }

    public function restore(Result $result, BinResult $bin): JsonResponse
    {
        if (! $bin->putBack($result)) {
            Problem::throw(409, 'not-in-bin', 'The file of this result is not in the bin; nothing was changed.');
        }

        return $this->show($result->refresh());
    }
}
