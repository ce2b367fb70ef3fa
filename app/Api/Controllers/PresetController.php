<?php

declare(strict_types=1);

namespace App\Api\Controllers;

use App\Api\Body;
use App\Api\Documents;
use App\Api\Page;
use App\Http\Problem;
use App\Presets\Actions\KeepPreset;
use App\Presets\Queries\Presets;
use App\Presets\Values\KnownPreset;
use App\Presets\Values\PresetKind;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Octavox\Core\Destination\DestinationInvalid;
use Octavox\Core\Failure;
use Octavox\Core\Order\RecipeInvalid;

/** Recipes and destinations, for scripts. What goes wrong with a document is told as the failure says it. */
final class PresetController
{
    public function __construct(private readonly Presets $presets, private readonly KeepPreset $keep) {}

    /**
     * @throws DestinationInvalid
     * @throws RecipeInvalid
     * @throws Failure
     */
    public function index(PresetKind $kind): JsonResponse
    {
        return Page::items(array_values(array_map(Documents::preset(...), $this->presets->all($kind))));
    }

    /**
     * @throws DestinationInvalid
     * @throws RecipeInvalid
     * @throws Failure
     */
    public function show(PresetKind $kind, string $name): JsonResponse
    {
        return Page::document(Documents::preset($this->known($kind, $name)));
    }

    /** @throws Failure */
    public function store(Request $request, PresetKind $kind): JsonResponse
    {
        $kept = $this->keep->add($kind->read(Body::read($request)));

        return Page::document(Documents::preset($this->known($kind, $kept->name)), 201,
            ['Location' => route('api.preset', [$kind, $kept->name])]);
    }

    /** @throws Failure */
    public function update(Request $request, PresetKind $kind, string $name): JsonResponse
    {
        $this->own($kind, $name);
        $this->keep->change($kind, $name, Body::read($request));

        return $this->show($kind, $name);
    }

    /**
     * @throws DestinationInvalid
     * @throws RecipeInvalid
     * @throws Failure
     */
    public function destroy(PresetKind $kind, string $name): Response
    {
        $this->own($kind, $name);
        $this->keep->remove($kind, $name);

        return response('', 204);
    }

    /**
     * @throws DestinationInvalid
     * @throws RecipeInvalid
     * @throws Failure
     */
    private function known(PresetKind $kind, string $name): KnownPreset
    {
        return $this->presets->all($kind)[$name] ?? Problem::throw(404, 'nothing-there',
            sprintf('There is no %s “%s”.', $kind->value, $name));
    }

    /**
     * @throws DestinationInvalid
     * @throws RecipeInvalid
     * @throws Failure
     */
    private function own(PresetKind $kind, string $name): void
    {
        $this->known($kind, $name)->isOwn || Problem::throw(403, 'ships-with-octavox',
            'What ships with Octavox is never changed; copy it first.');
    }
}
