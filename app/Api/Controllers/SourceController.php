<?php

declare(strict_types=1);

namespace App\Api\Controllers;

use App\Api\Body;
use App\Api\Documents;
use App\Api\Page;
use App\Api\Rows;
use App\Files\MediaType;
use App\Files\Shelf;
use App\Files\ShelfEntry;
use App\Files\ShelfFiles;
use App\Files\Shelves;
use App\Http\OpenedFile;
use App\Http\Problem;
use App\Http\RequestInput;
use App\Lists\LineNumbers;
use App\Presets\Queries\Presets;
use App\Sources\Actions\RemoveSources;
use App\Sources\Actions\TakeIn;
use App\Sources\Models\Source;
use App\Sources\Models\Upload;
use App\Sources\Pages\SourceFits;
use App\Sources\Queries\NamedSources;
use App\Sources\Values\SourceState;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Octavox\Core\Analysis\ReadingDocument;
use Octavox\Core\Destination\DestinationInvalid;
use Octavox\Core\Failure;
use Octavox\Core\Order\RecipeInvalid;

/** Shelves, sources and what is known of them, for scripts. */
final class SourceController
{
    public function __construct(private readonly Shelves $shelves) {}

    public function shelves(): JsonResponse
    {
        return Page::items(array_map(fn (Shelf $shelf): array => ['name' => $shelf->name, 'writable' => $shelf->isWritable],
            $this->shelves->lasting()));
    }

    public function shelf(Request $request, string $shelf): JsonResponse
    {
        return Page::items(array_map(fn (ShelfEntry $entry): array => ['name' => $entry->name, 'path' => $entry->path,
            'folder' => $entry->isFolder, 'bytes' => $entry->bytes], $this->found($shelf)
                ->entries(trim(RequestInput::text($request, 'folder'), '/'))));
    }

    public function index(Request $request, Rows $rows): JsonResponse
    {
        $state = SourceState::tryFrom(RequestInput::text($request, 'state'));

        return Page::of($request, $rows->sources($state), Documents::source(...));
    }

    /** Takes files and folders of a shelf in; they stay where they are. */
    public function store(Request $request, ShelfFiles $files, TakeIn $take): JsonResponse
    {
        $body = Body::read($request);
        $shelf = $this->found(Body::text($body, 'shelf'));
        $paths = $body['paths'] ?? [];
        if (! is_array($paths) || $paths === [] || array_filter($paths, is_string(...)) !== $paths) {
            Problem::throw(422, 'invalid', '“paths” is a list of paths on the shelf; nothing was taken in.', ['pointer' => '/paths']);
        }
        $sources = array_map(fn (Source $source): array => Documents::source($source->refresh()->load('tracks')),
            $take->allFromShelf($shelf, array_values($paths), $files->find($shelf, $paths)->files));

        return Page::document(['items' => $sources, 'next' => null], 201);
    }

    public function show(Source $source): JsonResponse
    {
        return Page::document(Documents::source($source));
    }

    public function destroy(Source $source, RemoveSources $remove): Response
    {
        $remove->remove([$source->id]);

        return response('', 204);
    }

    public function reading(Source $source): JsonResponse
    {
        $facts = $source->facts();
        if ($facts === null) {
            $source->state === SourceState::Reading
                ? Problem::throw(409, 'still-read', 'This source is still being read; ask again in a moment.')
                : Problem::throw(422, $source->error_code ?? 'unreadable',
                    $source->error_says ?? 'What was read of it can no longer be understood.');
        }

        return Page::document(ReadingDocument::write($facts));
    }

    public function analyses(Source $source): JsonResponse
    {
        return Page::items(array_values($source->soundTracks()->map(Documents::analysis(...))->all()));
    }

    /**
     * How sources stand to a destination as they are.
     *
     * @throws DestinationInvalid
     * @throws RecipeInvalid
     * @throws Failure
     */
    public function fits(Request $request, string $name, Presets $presets, SourceFits $fits, NamedSources $named): JsonResponse
    {
        $destination = $presets->destination($name) ?? Problem::throw(404, 'nothing-there', 'There is no destination of this name.');
        $sources = $named->all(LineNumbers::read(RequestInput::text($request, 'sources')), 200);
        $items = [];
        foreach ($fits->find($destination, $sources->all()) as $source => $fit) {
            $items[] = ['source' => $source, 'fit' => $fit->toArray(), 'why' => $fit->why()];
        }

        return Page::items($items);
    }

    public function file(Source $source): OpenedFile
    {
        return OpenedFile::of($source->path, ['Content-Type' => MediaType::name((string) $source->container, $source->picture !== null)]);
    }

    public function upload(Upload $upload): JsonResponse
    {
        return Page::document(Documents::upload($upload));
    }

    private function found(string $name): Shelf
    {
        return $this->shelves->named($name) ?? Problem::throw(404, 'nothing-there', sprintf('There is no shelf “%s”.', $name));
    }
}
