<?php

declare(strict_types=1);

namespace App\Api;

use App\Results\Values\ResultState;
use App\Settings\Values\SourceCare;
use App\Sources\Values\SourceState;
use Octavox\Core\Destination\Change;

/** The shapes of what the interface for scripts takes and tells: JSON Schema 2020-12, as OpenAPI 3.1 uses it. */
final class Schemas
{
    private const TEXT = ['type' => 'string'];

    private const NUMBER = ['type' => 'integer'];

    private const REAL = ['type' => 'number'];

    private const YES = ['type' => 'boolean'];

    private const MAYBE_TEXT = ['type' => ['string', 'null']];

    private const MAYBE_NUMBER = ['type' => ['integer', 'null']];

    private const MAYBE_REAL = ['type' => ['number', 'null']];

    private const MOMENT = ['type' => ['string', 'null'], 'format' => 'date-time'];

    private const ANY = ['type' => 'object'];

    /** @return array<string, array<string, mixed>> by name */
    public static function all(): array
    {
        $schemas = self::things() + self::asked();
        foreach (['Shelf', 'ShelfEntry', 'Source', 'Analysis', 'Destination', 'Recipe', 'Fit', 'Order', 'Result'] as $name) {
            $schemas['PageOf'.$name] = self::closed(['items' => self::listOf(self::ref($name)), 'next' => self::MAYBE_TEXT]);
        }

        return $schemas;
    }

    /** @return array<string, array<string, mixed>> */
    private static function things(): array
    {
        $error = ['anyOf' => [self::closed(['code' => self::TEXT, 'says' => self::TEXT]), ['type' => 'null']]];
        $maybe = fn (string $name): array => ['anyOf' => [self::ref($name), ['type' => 'null']]];

        return [
            'Any' => self::ANY,
            'Index' => self::closed(['name' => self::TEXT, 'version' => self::TEXT, 'description' => self::TEXT, 'examples' => self::TEXT]),
            'Problem' => self::open(['type' => self::TEXT, 'title' => self::TEXT, 'status' => self::NUMBER, 'code' => self::TEXT,
                'detail' => self::TEXT]),
            'Shelf' => self::closed(['name' => self::TEXT, 'writable' => self::YES]),
            'ShelfEntry' => self::closed(['name' => self::TEXT, 'path' => self::TEXT, 'folder' => self::YES, 'bytes' => self::NUMBER]),
            'Source' => self::closed(['id' => self::NUMBER, 'name' => self::TEXT, 'called' => self::TEXT,
                'folder' => self::TEXT, 'origin' => self::TEXT,
                'state' => self::oneOf(SourceState::class), 'container' => self::MAYBE_TEXT, 'bytes' => self::NUMBER,
                'seconds' => self::MAYBE_REAL, 'picture' => self::MAYBE_TEXT, 'same_as' => self::MAYBE_NUMBER, 'error' => $error,
                'tracks' => self::listOf(self::closed(['number' => self::NUMBER, 'kind' => self::TEXT, 'codec' => self::TEXT,
                    'format' => self::TEXT, 'language' => self::MAYBE_TEXT, 'rate' => self::MAYBE_NUMBER, 'channels' => self::MAYBE_NUMBER,
                    'layout' => self::MAYBE_TEXT, 'kbps' => self::MAYBE_REAL, 'samples' => self::MAYBE_NUMBER])),
                'created_at' => self::MOMENT]),
            'Reading' => self::open(['path' => self::TEXT, 'container' => self::TEXT, 'bytes' => self::NUMBER, 'seconds' => self::REAL,
                'tracks' => self::listOf(self::open(['number' => self::NUMBER, 'kind' => self::TEXT, 'codec' => self::TEXT,
                    'format' => self::TEXT])),
                'tags' => self::ANY, 'chapters' => self::listOf(self::ANY), 'findings' => self::listOf(self::ANY),
                'stated' => self::MAYBE_TEXT]),
            'Analysis' => self::closed(['track' => self::NUMBER, 'state' => ['enum' => ['done', 'analysing', 'failed']],
                'measured' => ['type' => ['object', 'null']], 'findings' => self::listOf(self::ANY), 'error' => self::MAYBE_TEXT]),
            'Upload' => self::closed(['id' => self::TEXT, 'name' => self::TEXT, 'folder' => self::TEXT, 'bytes' => self::NUMBER,
                'received' => self::NUMBER, 'source' => self::MAYBE_NUMBER, 'expires_at' => self::MOMENT]),
            'Destination' => self::open(['name' => self::TEXT, 'title' => self::TEXT, 'own' => self::YES, 'starred' => self::YES]),
            'Recipe' => self::open(['name' => self::TEXT, 'title' => self::TEXT, 'spec' => self::ANY, 'own' => self::YES,
                'starred' => self::YES]),
            'FitOf' => self::open(['accepted' => self::YES, 'change' => self::oneOf(Change::class),
                'violations' => self::listOf(self::open(['rule' => self::TEXT, 'says' => self::TEXT]))]),
            'Fit' => self::closed(['source' => self::NUMBER, 'fit' => self::ref('FitOf'), 'why' => self::TEXT]),
            'Plan' => self::open(['source' => self::TEXT, 'path' => self::TEXT, 'state' => self::TEXT,
                'action' => ['enum' => ['kept', 'remade']], 'container' => self::TEXT, 'codec' => self::MAYBE_TEXT,
                'rate' => self::MAYBE_NUMBER,
                'channels' => self::NUMBER, 'samples' => self::NUMBER, 'predicted_bytes' => self::NUMBER, 'seconds' => self::REAL,
                'steps' => self::listOf(self::TEXT), 'warnings' => self::listOf(self::TEXT)]),
            'Plans' => self::closed(['lines' => self::listOf(self::closed(['source' => self::NUMBER,
                'state' => ['enum' => ['planned', 'right', 'waiting', 'refused']], 'says' => self::TEXT,
                'plans' => self::listOf(self::ref('Plan')),
                'error' => $error, 'fit' => $maybe('FitOf')]))]),
            'Order' => self::closed(['id' => self::NUMBER, 'title' => self::TEXT, 'held' => self::YES, 'held_by' => self::MAYBE_TEXT,
                'priority' => self::NUMBER, 'on_failure' => ['enum' => ['go-on', 'stop', 'ask']], 'destination' => self::MAYBE_TEXT,
                'recipe' => self::MAYBE_TEXT, 'place' => self::TEXT, 'care' => self::oneOf(SourceCare::class),
                'summary' => self::TEXT,
                'results' => self::closed(['all' => self::NUMBER, 'done' => self::NUMBER, 'failed' => self::NUMBER,
                    'open' => self::NUMBER]),
                'percent' => self::NUMBER, 'seconds_left' => self::MAYBE_REAL, 'placed_at' => self::MOMENT]),
            'Result' => self::closed(['id' => self::NUMBER, 'order' => self::NUMBER, 'source' => self::MAYBE_NUMBER,
                'source_name' => self::TEXT,
                'name' => self::TEXT, 'action' => ['enum' => ['kept', 'remade']], 'state' => self::oneOf(ResultState::class),
                'held' => self::YES, 'waits_for' => self::MAYBE_TEXT, 'phase' => self::MAYBE_TEXT, 'percent' => self::NUMBER,
                'speed' => self::MAYBE_REAL, 'seconds_left' => self::MAYBE_REAL, 'bytes' => self::NUMBER, 'predicted_bytes' => self::NUMBER,
                'path' => self::MAYBE_TEXT, 'there' => self::YES, 'binned' => self::YES, 'error' => $error,
                'receipt' => ['type' => ['object', 'null']], 'ended_at' => self::MOMENT], ['receipt']),
        ];
    }

    /** @return array<string, array<string, mixed>> */
    private static function asked(): array
    {
        return [
            'TakeIn' => self::closed(['shelf' => self::TEXT, 'paths' => self::listOf(self::TEXT)]),
            'Turn' => self::closed(['held' => self::YES, 'turn' => ['enum' => ['first', 'last']]], ['held', 'turn']),
            'OrderRequest' => self::closed(['sources' => self::listOf(self::NUMBER), 'destination' => self::TEXT, 'recipe' => self::TEXT,
                'spec' => self::ANY, 'lines' => self::listOf(self::closed(['source' => self::NUMBER, 'spec' => self::ANY])),
                'title' => self::TEXT, 'place' => self::TEXT, 'on_failure' => ['enum' => ['go-on', 'stop', 'ask']],
                'care' => self::oneOf(SourceCare::class)],
                ['sources', 'destination', 'recipe', 'spec', 'lines', 'title', 'place', 'on_failure', 'care']),
        ];
    }

    /**
     * @param  array<string, mixed>  $properties
     * @param  list<string>  $optional
     * @return array<string, mixed> an object with these and no others
     */
    private static function closed(array $properties, array $optional = []): array
    {
        return self::open($properties, $optional) + ['additionalProperties' => false];
    }

    /**
     * @param  array<string, mixed>  $properties
     * @param  list<string>  $optional
     * @return array<string, mixed> an object with at least these
     */
    private static function open(array $properties, array $optional = []): array
    {
        return ['type' => 'object', 'properties' => $properties,
            'required' => array_values(array_diff(array_keys($properties), $optional))];
    }

    /** @return array<string, mixed> */
    private static function ref(string $name): array
    {
        return ['$ref' => '#/components/schemas/'.$name];
    }

    /**
     * @param  array<string, mixed>  $items
     * @return array<string, mixed>
     */
    private static function listOf(array $items): array
    {
        return ['type' => 'array', 'items' => $items];
    }

    /**
     * @param  class-string<\BackedEnum>  $enum
     * @return array<string, mixed>
     */
    private static function oneOf(string $enum): array
    {
        return ['enum' => array_map(fn (\BackedEnum $one): int|string => $one->value, $enum::cases())];
    }
}
