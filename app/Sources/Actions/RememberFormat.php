<?php

declare(strict_types=1);

namespace App\Sources\Actions;

use App\Settings\Actions\KeepSetting;
use App\Settings\Queries\Settings;
use App\Sources\Queries\HeaderlessFormats;
use Octavox\Core\Container\Raw\HeaderlessFormat;

/** Remembers of a recorder what its files without a header hold. */
final class RememberFormat
{
    private const MOST = 100;

    public function __construct(private readonly HeaderlessFormats $formats, private readonly KeepSetting $keep) {}

    /** @param  ?HeaderlessFormat  $as  null forgets it */
    public function remember(string $name, ?HeaderlessFormat $as, string $recorder = ''): void
    {
        $kept = [];
        foreach ($this->formats->remembered() as $one) {
            $kept[$one->extension] = ['as' => $one->as, 'recorder' => $one->recorder];
        }
        $extension = HeaderlessFormats::extension($name);
        unset($kept[$extension]);
        if ($as !== null && $extension !== '' && count($kept) < self::MOST) {
            $kept[$extension] = ['as' => (string) $as, 'recorder' => mb_substr(trim(mb_scrub($recorder)), 0, 60)];
        }
        $this->keep->set(Settings::HEADERLESS, $kept === [] ? null : $kept);
    }
}
