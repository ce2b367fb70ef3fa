<?php

declare(strict_types=1);

namespace App\Sources\Pages;

use App\Files\Shelf;
use App\Files\ShelfEntry;
use App\Files\ShelfFiles;
use App\Files\Shelves;
use App\Http\RequestInput;
use App\Results\Queries\MadeHere;
use App\Sources\Actions\BeginCopy;
use App\Sources\Actions\TakeIn;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;

final class ShelfController
{
    /** Of the form, beside the ticks. */
    private const OTHER_FIELDS = 2;

    public function __construct(private readonly Shelves $shelves) {}

    public function index(): View|RedirectResponse
    {
        $shelves = $this->shelves->lasting();

        return count($shelves) === 1 ? redirect()->route('shelf', $shelves[0]->name) : view('shelves.index', ['shelves' => $shelves]);
    }

    public function show(Request $request, string $shelf, MadeHere $made): View
    {
        $found = $this->find($shelf);
        $folder = trim(RequestInput::text($request, 'folder'), '/');

        $entries = $found->entries($folder);
        $made = $made->find(array_map(fn (ShelfEntry $entry): string => $entry->real, $entries));

        return view('shelves.show', ['shelf' => $found, 'folder' => $folder, 'parts' => self::parts($folder), 'entries' => $entries,
            'made' => $made]);
    }

    /** Takes in the ticked files; they stay where they are. */
    public function take(Request $request, string $shelf, TakeIn $takeIn, MadeHere $made, ShelfFiles $all): RedirectResponse
    {
        $found = $this->find($shelf);
        $sent = $request->request->all()['paths'] ?? [];
        // The page joins all ticks in one field; a form without its script sends a field for each, of which only so many arrive.
        $paths = array_filter((array) (is_string($sent) ? json_decode($sent, true) : $sent), is_string(...));
        if (is_array($sent) && count($sent) >= (int) ini_get('max_input_vars') - self::OTHER_FIELDS) {
            return back()->with('said',
                sprintf('More files were ticked than arrive at once without the script of this page, so none was taken; tick at most %d '
                    .'at a time.', (int) ini_get('max_input_vars') - self::OTHER_FIELDS - 1));
        }
        $meant = $all->find($found, $paths);
        $files = $meant->files;
        // One that is ticked alone is meant.
        $left = count($files) > 1 ? $made->find(array_values($files)) : [];
        $taken = array_filter($files, fn (string $real): bool => ! isset($left[$real]));
        $takeIn->allFromShelf($found, array_values($paths), $taken);
        $count = count($taken);

        return $count === 0
            ? back()->with('said', ($paths === [] ? 'Nothing was ticked, so nothing was taken.'
                : 'There is no recording in what was ticked, so nothing was taken.')
                .$meant->says())
            : redirect()->route('sources')
                ->with('said', sprintf('%d %s taken from %s; nothing was copied.%s', $count, $count === 1 ? 'file' : 'files', $found->name,
                    $left === [] ? ''
                        : sprintf(' %d were made here before and were left out; tick one alone to use it as a source.', count($left)))
                    .$meant->says());
    }

    /** Copies a folder in, or goes on with one that failed; the originals stay. */
    public function copy(Request $request, string $shelf, BeginCopy $copy): RedirectResponse
    {
        $folder = trim(RequestInput::sent($request, 'folder'), '/');
        is_dir($this->find($shelf)->resolve($folder)) || abort(404);
        $copied = $copy->begin($shelf, $folder);

        return redirect()->route('sources')
            ->with('said', $copied->heading().' is being copied in; its recordings appear here as soon as all are '
            .'copied and read again.');
    }

    private function find(string $name): Shelf
    {
        return $this->shelves->named($name) ?? abort(404);
    }

    /** @return list<array{name: string, path: string}> each folder on the way down */
    private static function parts(string $folder): array
    {
        $parts = [];
        $path = '';
        foreach (array_filter(explode('/', $folder), fn (string $name): bool => $name !== '') as $name) {
            $path = ltrim($path.'/'.$name, '/');
            $parts[] = ['name' => $name, 'path' => $path];
        }

        return $parts;
    }
}
