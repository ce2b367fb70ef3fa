<?php

declare(strict_types=1);

namespace App\Settings\Pages;

use App\Http\RequestInput;
use App\Settings\Actions\ChangeSettings;
use App\Settings\Actions\IssueToken;
use App\Settings\Values\AccessScope;
use App\Settings\Values\SettingRefused;
use App\Sources\Actions\NameDecoder;
use App\Sources\Actions\RememberFormat;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Octavox\Core\Destination\DestinationInvalid;
use Octavox\Core\Failure;
use Octavox\Core\Order\RecipeInvalid;

final class SettingController
{
    public function show(SettingPage $page): View
    {
        return view('settings', ['page' => $page]);
    }

    /**
     * @throws DestinationInvalid
     * @throws RecipeInvalid
     * @throws Failure
     */
    public function update(Request $request, ChangeSettings $change): RedirectResponse
    {
        $change->with($request->request->all());

        return redirect()->route('settings')->with('said', 'Saved.');
    }

    public function open(Request $request, ChangeSettings $change): RedirectResponse
    {
        try {
            $change->open(RequestInput::sent($request, 'name'), RequestInput::sent($request, 'path'), $request->boolean('writable'));
        } catch (SettingRefused $refused) {
            return redirect()->route('settings')->withInput(RequestInput::again($request))->with('said', $refused->getMessage());
        }

        return redirect()->route('settings')->with('said', 'The shelf is open.');
    }

    /** Closes a shelf, or says whether results may be put on it. */
    public function shelf(Request $request, ChangeSettings $change): RedirectResponse
    {
        $name = RequestInput::sent($request, 'name');
        match (RequestInput::sent($request, 'do')) {
            'close' => $change->close($name),
            'allow' => $change->allow($name, true),
            'forbid' => $change->allow($name, false),
            default => abort(404),
        };

        return redirect()->route('settings')->with('said', 'Saved. What lies on the shelf stays as it is.');
    }

    public function forget(string $extension, RememberFormat $formats): RedirectResponse
    {
        $formats->remember('x.'.$extension, null);

        return redirect()->route('settings')->with('said', 'It is forgotten; what was read stays as it is.');
    }

    public function decoder(Request $request, NameDecoder $decoders): RedirectResponse
    {
        try {
            $request->boolean('forget') ? $decoders->forget(RequestInput::sent($request, 'codec'))
                : $decoders->name(RequestInput::sent($request, 'codec'), RequestInput::sent($request, 'command'));
        } catch (SettingRefused $refused) {
            return redirect()->route('settings')->withInput(RequestInput::again($request))->with('said', $refused->getMessage());
        }

        return redirect()->to(route('settings').'#decoders')->with('said', 'Saved. Sources that it concerns are read again.');
    }

    public function issue(Request $request, IssueToken $issue): RedirectResponse
    {
        $scopes = array_values(array_filter(AccessScope::cases(), fn (AccessScope $scope): bool => $request->boolean($scope->value)));
        try {
            $token = $issue->issue(RequestInput::sent($request, 'title'), $scopes);
        } catch (SettingRefused $refused) {
            return redirect()->route('settings')->withInput(RequestInput::again($request))->with('said', $refused->getMessage());
        }

        return redirect()->to(route('settings').'#scripts')->with('token', $token);
    }

    public function withdraw(int $number, IssueToken $issue): RedirectResponse
    {
        $issue->withdraw($number);

        return redirect()->route('settings')->with('said', 'Token revoked.');
    }
}
