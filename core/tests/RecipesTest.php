<?php

declare(strict_types=1);

use Octavox\Core\Container\Outputs;
use Octavox\Core\Container\Video\VideoOutputs;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Order\Recipe;
use Octavox\Core\Order\RecipeInvalid;
use Octavox\Core\Order\Recipes;
use Octavox\Core\Plan\OrderLine;
use Octavox\Core\Plan\OrderPlanner;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Tests\Support\SchemaCheck;
use Octavox\Core\Tests\Support\Scratch;
use Octavox\Core\Tests\Support\Signal;

it('ships a dozen recipes, each as its schema says and by its own name', function () {
    $schema = (array) json_decode((string) file_get_contents(dirname(__DIR__).'/schema/recipe.json'), true);
    $spec = (array) json_decode((string) file_get_contents(dirname(__DIR__).'/schema/output-spec.json'), true);
    $shipped = Recipes::shipped();
    expect(count($shipped))->toBeGreaterThanOrEqual(12)->and(array_keys($schema['properties']))->toBe(Recipe::FIELDS);
    foreach ($shipped as $name => $recipe) {
        $document = json_decode((string) json_encode($recipe->toArray()), true);
        expect(is_file(dirname(__DIR__)."/recipes/$name.json"))->toBeTrue()->and(SchemaCheck::breaches($schema, $document))->toBe([])
            ->and(SchemaCheck::breaches($spec, $document['spec']))->toBe([])->and(Recipe::fromArray($document))->toEqual($recipe)
            ->and(Outputs::named((string) $recipe->spec->container) ?? VideoOutputs::named((string) $recipe->spec->container))->not
            ->toBeNull();
    }
});

it('plans every shipped recipe for a video with two channels of sound', function (Recipe $recipe) {
    $path = Scratch::write('tour.mp4', Signal::movie([Signal::pictureTrack(60), Signal::aacTrack([Signal::sweep(96_000),
        Signal::sweep(96_000)])]));
    $spec = $recipe->spec->withSounds(array_map(fn ($sound) => $sound->withLevel($sound->level === null ? null : 'gain:1')
        ->withPieces($sound->pieces === null ? null : '0-1'), $recipe->spec->sounds));
    $line = OrderPlanner::plan([new OrderLine(Reader::read($path))], $spec)[0];
    expect($line->refusal)->toBeNull()->and(count($line->plans) + count($line->wanted->borders))->toBeGreaterThan(0);
})->with(array_map(fn (Recipe $recipe): array => [$recipe], Recipes::shipped()));

it('refuses what is no recipe, and names the field', function (string $json, string $says) {
    expect(fn () => Recipe::fromJson($json))->toThrow(RecipeInvalid::class, $says);
})->with([
    ['no json', 'no JSON object'], ['[]', 'version'], ['{"version":2}', 'version 2'],
    ['{"version":1,"name":"A b","title":"x","spec":{"version":1}}', 'name'],
    ['{"version":1,"name":"a","title":" ","spec":{"version":1}}', 'title'], ['{"version":1,"name":"a","title":"x"}', 'spec'],
    ['{"version":1,"name":"a","title":"x","spec":{"version":1},"run":"rm"}', 'run'],
    ['{"version":1,"name":"a","title":"x","spec":{"version":1,"place":"/etc"}}', 'spec.place'],
    ['{"version":1,"name":"a","title":"x","spec":{"version":1,"sounds":[{"rate":"fast"}]}}', 'sounds[0].rate'],
    [str_repeat('[', 100_000), 'no JSON object'],
]);

it('finds recipes by name and by path, and says which there are', function () {
    $path = Scratch::write('own.json', (string) json_encode(Recipe::of('own', 'Own one', 'note', new OutputSpec('flac'))->toArray()));
    expect(Recipes::find('put-away')->spec->container)->toBe('flac')->and(Recipes::find($path)->title)->toBe('Own one')
        ->and(fn () => Recipes::find('nowhere'))->toThrow(RecipeInvalid::class, 'put-away')
        ->and(Recipe::nameOf('Für die Brücke, 2'))->toMatch('/^[a-z0-9-]+$/')->and(Recipe::nameOf('🚤'))->toBe('recipe');
});
