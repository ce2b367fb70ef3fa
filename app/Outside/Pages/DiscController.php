<?php

declare(strict_types=1);

namespace App\Outside\Pages;

use App\Files\Shelves;
use App\Http\RequestInput;
use App\Lists\LineNumbers;
use App\Outside\Discs\DiscDrive;
use App\Outside\Discs\OpenDisc;
use App\Sources\Actions\TakeIn;
use App\Sources\Actions\TakeTitles;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Octavox\Core\Failure;

/** Discs: what is on them, and what of that is taken. They lie in the drive, or on a shelf. */
final class DiscController
{
    public function drive(DiscDrive $drive, OpenDisc $open): View
    {
        $path = $drive->disc();

        return $this->page($path, $open, ['shelf' => null, 'relative' => '', 'beside' => $drive->beside()]);
    }

    public function shelf(Request $request, string $shelf, Shelves $shelves, OpenDisc $open): View
    {
        $found = $shelves->named($shelf) ?? abort(404);
        $relative = trim(RequestInput::text($request, 'path'), '/');
        $path = $found->resolve($relative);
        abort_unless(is_file($path), 404);

        return $this->page($path, $open, ['shelf' => $shelf, 'relative' => $relative, 'beside' => []]);
    }

    /** Ejects, or puts a disc in. */
    public function move(Request $request, DiscDrive $drive): RedirectResponse
    {
        try {
            $name = RequestInput::sent($request, 'insert');
            $name === '' ? $drive->eject() : $drive->insert($name);
        } catch (Failure $refused) {
            return redirect()->route('drive')->with('said', $refused->getMessage());
        }

        return redirect()->route('drive')->with('said', $name === '' ? 'The disc is out; it lies beside the drive.' : 'The disc is in.');
    }

    public function take(Request $request, DiscDrive $drive, Shelves $shelves, OpenDisc $open, TakeTitles $titles,
        TakeIn $takeIn): RedirectResponse
    {
        $shelf = $shelves->named(RequestInput::sent($request, 'shelf'));
        $relative = trim(RequestInput::sent($request, 'path'), '/');
        $path = $shelf === null ? $drive->disc() : $shelf->resolve($relative);
        $numbers = LineNumbers::read($request->input('titles'));
        if ($path === null) {
            return redirect()->route('drive')->with('said', 'The tray is empty now, so nothing was taken.');
        }
        try {
            $isThere = $open->has($path, $request->boolean('audio') ? null : $numbers);
        } catch (Failure $failure) {
            return redirect()->back(fallback: route('drive'))->with('said', $failure->getMessage());
        }
        if (! $isThere) {
            return redirect()->back(fallback: route('drive'))->with('said', 'This is another disc now, so nothing was taken; look again.');
        }
        $folder = $shelf === null ? 'Drive' : trim($shelf->name.'/'.dirname($relative), '/.');
        if ($request->boolean('audio')) {
            $takeIn->disc($path, $folder, $shelf === null ? 'drive' : 'shelf');
        } elseif ($numbers === []) {
            return redirect()->back(fallback: route('drive'))->with('said', 'Nothing was ticked, so nothing was taken.');
        } else {
            $titles->chosen($path, $numbers, $folder, $shelf === null ? 'drive' : 'shelf');
        }

        return redirect()->route('sources')->with('said', 'Taken from the disc; nothing was copied.');
    }

    /** @param  array<string, mixed>  $more */
    private function page(?string $path, OpenDisc $open, array $more): View
    {
        $disc = null;
        $says = '';
        try {
            $disc = $path === null ? null : $open->at($path);
        } catch (Failure $failure) {
            $says = $failure->getMessage();
        }

        return view('outside.disc', $more + ['path' => $path, 'disc' => $disc, 'says' => $says,
            'taken' => $path === null || $disc === null ? [] : $open->taken($path, $disc)]);
    }
}
