<?php

declare(strict_types=1);

namespace App\Orders\Pages;

use App\Files\KeepPicture;
use App\Files\Pictures;
use App\Http\OpenedFile;
use App\Http\RequestInput;
use App\Orders\Actions\ChangeLines;
use App\Orders\Models\Order;
use App\Orders\Values\Scope;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Http\UploadedFile;
use Octavox\Core\Failure;

/** Covers that results get instead of those of their sources. */
final class CoverController
{
    /** For one line, else for the marked ones, else for all. */
    public function update(Request $request, Order $order, ChangeLines $change, KeepPicture $keep): RedirectResponse
    {
        abort_unless($order->isDraft(), 409);
        $line = $order->line($request->integer('line'));
        $picture = $request->file('picture');
        try {
            $word = match (true) {
                in_array($request->input('what'), ['none', 'own'], true) => RequestInput::sent($request, 'what'),
                $picture instanceof UploadedFile && $picture->isValid() => $keep->keep($picture->getPathname(), $request->integer('side')),
                default => null,
            };
        } catch (Failure $refused) {
            return redirect()->back()->with('said', $refused->getMessage());
        }
        if ($word === null) {
            return redirect()->back()->with('said', 'No picture was chosen, or it is larger than 16 MB; nothing was changed.');
        }
        $isMarked = $line === null && $order->markedCount() > 0;
        $change->with($order, $line, $line !== null ? Scope::Line : ($isMarked ? Scope::Marked : Scope::All), ['cover' => $word]);

        return redirect()->back()->with('said', $word === 'none' ? 'The results get no cover.'
            : ($word === 'own' ? 'The results get the covers of their sources.'
                : 'The results get this cover. The sources stay as they are.'));
    }

    public function show(string $picture): OpenedFile
    {
        $path = Pictures::path($picture);

        return OpenedFile::of($path !== null && is_file($path) ? $path : abort(404), [
            'Content-Type' => str_ends_with($picture, '.png') ? 'image/png' : 'image/jpeg', 'X-Content-Type-Options' => 'nosniff',
            'Cache-Control' => 'private, max-age=31536000, immutable',
        ]);
    }
}
