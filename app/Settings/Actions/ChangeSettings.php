<?php

declare(strict_types=1);

namespace App\Settings\Actions;

use App\Files\Shelf;
use App\Files\Shelves;
use App\Presets\Queries\Presets;
use App\Settings\Queries\Settings;
use App\Settings\Values\SettingRefused;
use App\Settings\Values\SourceCare;
use Illuminate\Support\Facades\File;
use Octavox\Core\Destination\DestinationInvalid;
use Octavox\Core\Failure;
use Octavox\Core\Name\Signs;
use Octavox\Core\Order\RecipeInvalid;

/** Sets what counts for the whole application; what the environment says stays as it is. */
final class ChangeSettings
{
    public const MOST_WORKERS = 64;

    private const MOST_SHELVES = 50;

    private const LONGEST_NAME = 60;

    public function __construct(private readonly Settings $settings, private readonly Presets $presets,
        private readonly Shelves $shelves, private readonly KeepSetting $keep) {}

    /**
     * @param  array<array-key, mixed>  $input  only what is given is set; what cannot be leaves what was there
     *
     * @throws DestinationInvalid
     * @throws RecipeInvalid
     * @throws Failure
     */
    public function with(array $input): void
    {
        // What is left empty comes as null.
        $text = fn (string $name): ?string => ! array_key_exists($name, $input) || is_array($input[$name]) ? null
            : trim(mb_scrub(is_scalar($input[$name]) ? (string) $input[$name] : ''));
        foreach ([Settings::RING, Settings::NOTIFY] as $name) {
            if ($text($name) !== null) {
                $this->keep->set($name, $text($name) === '1' ? true : null);
            }
        }
        $numbers = [Settings::WORKERS => self::MOST_WORKERS, Settings::UPLOAD_GIGABYTES => 100_000, Settings::UPLOAD_HOURS => 10_000,
            Settings::FREE_GIGABYTES => 100_000];
        foreach ($numbers as $name => $most) {
            $given = $text($name);
            // That no room stays free can be wished for; no worker, no bytes and no hours cannot.
            $least = $name === Settings::FREE_GIGABYTES ? 0 : 1;
            if ($given === '' || $given !== null && ctype_digit($given) && (int) $given >= $least && (int) $given <= $most) {
                $this->keep->set($name, $given === '' ? null : (int) $given);
            }
        }
        foreach ([Settings::NAME_SIGNS, Settings::TAG_SIGNS] as $name) {
            if ($text($name) !== null) {
                $this->keep->set($name, Signs::tryFrom($text($name))?->value);
            }
        }
        $goes = $text(Settings::GOES);
        if ($goes !== null && ($goes === '' || $this->presets->written($goes) !== null)) {
            $this->keep->set(Settings::GOES, $goes === '' ? null : $goes);
        }
        $place = $text(Settings::PLACE);
        if ($place !== null) {
            $isPlace = $place === 'beside' || str_starts_with($place, 'shelf:')
                && $this->shelves->named(substr($place, 6))?->isWritable === true;
            $this->keep->set(Settings::PLACE, $isPlace ? $place : null);
        }
        if ($text(Settings::CARE) !== null) {
            $care = SourceCare::tryFrom($text(Settings::CARE));
            $this->keep->set(Settings::CARE, $care === SourceCare::Keep ? null : $care?->value);
        }
        $address = $text(Settings::PUBLIC_ADDRESS);
        if ($address === '' || $address !== null && preg_match('#^https?://[a-z0-9.:\[\]-]+(/[\w./~-]*)?$#Di', $address) === 1) {
            $this->keep->set(Settings::PUBLIC_ADDRESS, $address === '' ? null : rtrim($address, '/'));
        }
        $copies = $text(Settings::COPIES_ON);
        if ($copies !== null) {
            $this->keep->set(Settings::COPIES_ON, $this->shelves->named($copies)?->isWritable === true ? $copies : null);
        }
        $this->tell();
    }

    /**
     * Opens a folder of the machine.
     *
     * @throws SettingRefused why it stays closed
     */
    public function open(string $name, string $path, bool $isWritable): void
    {
        $name = mb_substr(trim(mb_scrub($name)), 0, self::LONGEST_NAME);
        $real = str_contains($path, "\0") ? false : realpath(trim($path));
        $own = $this->settings->shelves();
        $home = (string) realpath(config()->string('octavox.home'));
        $why = match (true) {
            ! str_starts_with(trim($path), '/') => 'A shelf is told by its whole path, from the first slash on.',
            $real === false || ! is_dir($real) => sprintf('There is no folder %s, or Octavox may not look into it.', trim($path)),
            $real === '/' || $real === $home || str_starts_with($home, $real.'/')
                || str_starts_with($real, $home.'/') => 'This folder holds what Octavox keeps for itself, or lies in it, '
                    .'so it stays closed.',
            ! is_readable($real) => 'Octavox may not read this folder; check who owns it.',
            $isWritable && ! is_writable($real) => 'Octavox may not write into this folder, so results cannot be put '
                .'there; open it without.',
            $name === '' || preg_match('~[:=/]~', $name) === 1 => 'A shelf needs a name without colons, slashes and equals signs.',
            $this->shelves->named($name) !== null => sprintf('There is a shelf called “%s” already; choose another name.', $name),
            count($own) >= self::MOST_SHELVES => 'There are as many shelves as there may be; close one first.',
            default => '',
        };
        if ($why !== '') {
            throw new SettingRefused($why.' Nothing was changed.');
        }
        $this->keep([...$own, new Shelf($name, (string) $real, $isWritable)]);
    }

    /** Sources that lie on it stay on the list, and are not there any more when somebody wants them. */
    public function close(string $name): void
    {
        $this->keep(array_values(array_filter($this->settings->shelves(), fn (Shelf $shelf): bool => $shelf->name !== $name)));
    }

    public function allow(string $name, bool $isWritable): void
    {
        $this->keep(array_map(fn (Shelf $shelf): Shelf => $shelf->name !== $name || $isWritable && ! is_writable($shelf->root) ? $shelf
            : new Shelf($shelf->name, $shelf->root, $isWritable), $this->settings->shelves()));
    }

    /** What processes have to know that do not ask the database. */
    public function tell(): void
    {
        File::replace(config()->string('octavox.home').'/settings.json',
            json_encode(['workers' => $this->settings->number(Settings::WORKERS)], JSON_THROW_ON_ERROR)."\n");
    }

    /** @param  list<Shelf>  $shelves */
    private function keep(array $shelves): void
    {
        $this->keep->set(Settings::SHELVES, $shelves === [] ? null : array_map(fn (Shelf $shelf): array => [
            'name' => $shelf->name, 'path' => $shelf->root, 'writable' => $shelf->isWritable], $shelves));
    }
}
