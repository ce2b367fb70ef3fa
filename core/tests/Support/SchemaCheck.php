<?php

declare(strict_types=1);

namespace Octavox\Core\Tests\Support;

/** As much of JSON Schema (draft 2020-12) as the schemas of the core use. */
final class SchemaCheck
{
    /**
     * @param  array<string, mixed>  $schema
     * @return list<string> where the value breaks it, and how
     */
    public static function breaches(array $schema, mixed $value, string $at = '$'): array
    {
        $is = fn (string $type): bool => match ($type) {
            'object' => is_array($value) && ($value === [] || ! array_is_list($value)),
            'array' => is_array($value) && array_is_list($value),
            'string' => is_string($value),
            'integer' => is_int($value),
            'boolean' => is_bool($value),
            'null' => $value === null,
            default => throw new \LogicException("The check does not know $type."),
        };
        $types = (array) ($schema['type'] ?? []);
        if ($types !== [] && array_filter($types, $is) === []) {
            return ["$at is no ".implode(' or ', $types)];
        }
        if ($value === null) {
            return [];
        }
        $breaches = [];
        if (isset($schema['enum']) && ! in_array($value, $schema['enum'], true)) {
            $breaches[] = "$at is not among the words";
        }
        if (is_int($value) && ($value < ($schema['minimum'] ?? $value) || $value > ($schema['maximum'] ?? $value))) {
            $breaches[] = "$at is beyond its bounds";
        }
        foreach (is_array($value) && isset($schema['properties']) ? $value : [] as $name => $own) {
            $property = $schema['properties'][$name] ?? null;
            $unknown = ($schema['additionalProperties'] ?? true) === false ? ["$at.$name is not known"] : [];
            array_push($breaches, ...($property === null ? $unknown : self::breaches($property, $own, "$at.$name")));
        }
        foreach ($schema['required'] ?? [] as $name) {
            array_push($breaches, ...(is_array($value) && array_key_exists($name, $value) ? [] : ["$at.$name is missing"]));
        }
        foreach (is_array($value) && isset($schema['items']) ? $value : [] as $index => $own) {
            array_push($breaches, ...self::breaches($schema['items'], $own, "{$at}[$index]"));
        }

        return is_array($value) && count($value) > ($schema['maxItems'] ?? $schema['maxProperties'] ?? PHP_INT_MAX) ? [...$breaches,
            "$at has too many"] : $breaches;
    }
}
