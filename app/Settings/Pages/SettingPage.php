<?php

declare(strict_types=1);

namespace App\Settings\Pages;

use App\Files\Shelf;
use App\Files\Shelves;
use App\Presets\Queries\Presets;
use App\Presets\Values\KnownPreset;
use App\Presets\Values\PresetKind;
use App\Results\Queries\Bin;
use App\Settings\Models\AccessToken;
use App\Settings\Queries\Settings;
use App\Settings\Values\AccessScope;
use App\Settings\Values\SourceCare;
use App\Sources\Queries\Decoders;
use App\Sources\Queries\HeaderlessFormats;
use App\Sources\Values\RecorderFormat;
use Octavox\Core\Destination\DestinationInvalid;
use Octavox\Core\Failure;
use Octavox\Core\Name\Signs;
use Octavox\Core\Order\RecipeInvalid;

/** Everything that the page of settings shows. */
final class SettingPage
{
    public function __construct(private readonly Settings $settings, private readonly Shelves $shelves,
        private readonly Presets $presets, private readonly Bin $bin, private readonly HeaderlessFormats $formats,
        private readonly Decoders $decoders) {}

    /** @return array<string, array{string, bool}> commands by codec, and whether their program is there */
    public function decoders(): array
    {
        return array_map(fn (string $command): array => [$command, $this->decoders->isThere($command)], $this->decoders->all());
    }

    public function is(string $name): bool
    {
        return $this->settings->is($name);
    }

    public function text(string $name): string
    {
        return (string) ($this->settings->number($name) ?? $this->settings->text($name));
    }

    /** Whether the environment says it, so that nobody can say it here. */
    public function isFixed(string $name): bool
    {
        return in_array($name, config()->array('octavox.fixed'), true);
    }

    public function gigabytes(): int
    {
        return intdiv(config()->integer('octavox.largest_upload'), 1_000_000_000);
    }

    public function hours(): int
    {
        return config()->integer('octavox.upload_hours');
    }

    public function results(): string
    {
        return config()->string('octavox.results');
    }

    /** @return list<Shelf> those that were opened here, also where their folder is gone */
    public function own(): array
    {
        return $this->settings->shelves();
    }

    /** @return list<Shelf> those that the environment opens */
    public function fixed(): array
    {
        $own = array_map(fn (Shelf $shelf): string => $shelf->name, $this->settings->shelves());

        return array_values(array_filter($this->shelves->lasting(), fn (Shelf $shelf): bool => ! in_array($shelf->name, $own, true)));
    }

    /** @return array<string, string> places for new drafts, by the value of the choice */
    public function places(): array
    {
        $places = ['' => 'among the results', 'beside' => 'beside each source, where its shelf is open for writing'];
        foreach ($this->shelves->writable() as $shelf) {
            $places['shelf:'.$shelf->name] = 'on the shelf '.$shelf->name;
        }

        return $places;
    }

    /**
     * @return array<string, array<string, string>> what new drafts can go to, by group and by the value of the choice
     *
     * @throws DestinationInvalid
     * @throws RecipeInvalid
     * @throws Failure
     */
    public function goes(): array
    {
        $title = fn (KnownPreset $one): string => $one->what->title;
        $choices = [];
        foreach ([PresetKind::Destination, PresetKind::Recipe] as $kind) {
            foreach ($this->presets->all($kind) as $name => $one) {
                $choices[$kind->plural()][$kind->before().$name] = $title($one);
            }
        }

        return $choices;
    }

    /** @return array<string, string> */
    public function signs(): array
    {
        return [Signs::Keep->value => 'kept', Signs::Remove->value => 'removed', Signs::Spell->value => 'spelled out'];
    }

    /** @return array<string, string> what new orders can do for their sources */
    public function cares(): array
    {
        $cares = SourceCare::cases();

        return array_combine(array_column($cares, 'value'), array_map(fn (SourceCare $one): string => $one->label(), $cares));
    }

    /** @return list<string> names of shelves that are open for writing */
    public function writable(): array
    {
        return array_map(fn (Shelf $shelf): string => $shelf->name, $this->shelves->writable());
    }

    public function bin(): Bin
    {
        return $this->bin;
    }

    /** @return list<RecorderFormat> that were remembered */
    public function recorders(): array
    {
        return $this->formats->remembered();
    }

    /** @return list<AccessToken> for scripts, newest first */
    public function tokens(): array
    {
        return array_values(AccessToken::query()->latest('id')->get()->all());
    }

    /** @return list<AccessScope> */
    public function scopes(): array
    {
        return AccessScope::cases();
    }
}
