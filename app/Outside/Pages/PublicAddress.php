<?php

declare(strict_types=1);

namespace App\Outside\Pages;

use App\Settings\Queries\Settings;
use Illuminate\Http\Request;

/** Where others reach Octavox: as it is set, else as whoever asks reached it. */
final class PublicAddress
{
    /** @return string without a slash at its end */
    public static function find(Settings $settings, Request $request): string
    {
        $set = $settings->text(Settings::PUBLIC_ADDRESS);

        return $set === '' ? $request->getSchemeAndHttpHost() : $set;
    }
}
