<?php

declare(strict_types=1);

namespace App\Api;

use App\Files\OutsideShelf;
use App\Files\Pictures;
use App\Files\Shelves;
use App\Http\Problem;
use App\Orders\Planning\Place;
use App\Orders\Values\OnFailure;
use App\Settings\Values\SourceCare;
use App\Sources\Models\Source;
use Illuminate\Http\Exceptions\HttpResponseException;
use Illuminate\Http\Request;
use Octavox\Core\Failure;
use Octavox\Core\Order\OutputSpec;

/** What a script wants made: sources, where they go or by which recipe or spec, and what differs for single ones. */
final readonly class OrderRequest
{
    private const MOST = 20_000;

    private const FIELDS = ['sources', 'destination', 'recipe', 'spec', 'lines', 'title', 'place', 'on_failure', 'care'];

    /**
     * @param  list<int>  $sources
     * @param  string  $goes  `to:` a destination, `by:` a recipe; empty where the spec alone says what is made
     * @param  array<int, OutputSpec>  $lines  by source
     */
    private function __construct(public array $sources, public string $goes, public ?OutputSpec $spec, public array $lines,
        public string $title, public string $place, public OnFailure $onFailure,
        public SourceCare $care) {}

    /** @throws HttpResponseException a problem that names what cannot be taken */
    public static function of(Request $request): self
    {
        $body = Body::read($request);
        foreach (array_diff(array_keys($body), self::FIELDS) as $strange) {
            self::refuse($strange, sprintf('There is no field “%s”; there are %s', $strange, implode(', ', self::FIELDS)));
        }
        $lines = self::lines($body['lines'] ?? []);
        $sources = self::sources($body['sources'] ?? array_keys($lines));
        $names = ['destination' => Body::text($body, 'destination'), 'recipe' => Body::text($body, 'recipe')];
        $spec = isset($body['spec']) ? self::spec($body['spec'], 'spec') : null;
        if (($names['destination'] === '') === ($names['recipe'] === '') && ($names['recipe'] !== '' || $spec === null)) {
            self::refuse('destination', 'Say where it goes by a destination, or how it is made by a recipe or a spec, and only one of the '
                .'first two');
        }
        foreach (array_diff_key($lines, array_flip($sources)) as $source => $line) {
            self::refuse('lines', sprintf('The line of source %d is not among the sources', $source));
        }
        $failure = Body::text($body, 'on_failure', OnFailure::GoOn->value);

        $place = Body::text($body, 'place', $spec->place ?? '');
        self::requirePlace($place, isset($body['place']) ? 'place' : 'spec/place');

        return new self($sources, match (true) {
            $names['destination'] !== '' => 'to:'.$names['destination'],
            $names['recipe'] !== '' => 'by:'.$names['recipe'],
            default => '',
        }, $spec, $lines, Body::text($body, 'title'), $place, OnFailure::tryFrom($failure)
            ?? self::refuse('on_failure', 'When one fails, the rest goes on, stops or asks: go-on, stop, ask'), SourceCare::tryFrom(
                Body::text($body, 'care', 'keep')) ?? self::refuse('care', 'For the sources there are keep, copy, bin, both'));
    }

    /** @return list<int> */
    private static function sources(mixed $given): array
    {
        if (! is_array($given) || $given === [] || count($given) > self::MOST || array_filter($given, is_int(...)) !== $given) {
            self::refuse('sources', sprintf('At least one source is named by its number, at most %d are', self::MOST));
        }
        $there = [];
        foreach (array_chunk($given, 500) as $part) {
            $there += Source::query()->whereKey($part)->pluck('id', 'id')->all();
        }
        foreach ($given as $source) {
            isset($there[$source]) || self::refuse('sources', sprintf('There is no source %d', $source));
        }

        return array_values(array_unique(array_map(intval(...), $given)));
    }

    /** @return array<int, OutputSpec> */
    private static function lines(mixed $given): array
    {
        $lines = [];
        foreach (is_array($given) ? $given : self::refuse('lines', 'Lines are a list') as $number => $line) {
            $source = is_array($line) ? $line['source'] ?? null : null;
            $lines[is_int($source) ? $source : self::refuse("lines/$number/source", 'Each line names a source by its number')]
                = self::spec(is_array($line) ? $line['spec'] ?? [] : [], "lines/$number/spec");
            if (end($lines)->place !== null) {
                self::refuse("lines/$number/spec/place", 'All of an order lies in one place, which “place” of the order names');
            }
        }

        return $lines;
    }

    private static function spec(mixed $given, string $at): OutputSpec
    {
        try {
            $spec = OutputSpec::fromArray((is_array($given) ? $given : self::refuse($at, 'A spec is a JSON object')) + ['version' => 1]);
        } catch (Failure $failure) {
            Problem::throw(422, $failure->code(), $failure->getMessage(), ['pointer' => '/'.$at]);
        }
        $cover = $spec->cover ?? '';
        if ($cover !== '' && (Pictures::name($cover) === null || ! is_file($cover))) {
            self::refuse("$at/cover", 'A picture for a cover is one that was brought in on a sheet, and this path is none');
        }
        if (preg_match('~(^|[/\\\\])\.\.?([/\\\\]|$)~', $spec->name ?? '') === 1) {
            self::refuse("$at/name", 'A name leads into folders below the place of the order, never out of it');
        }

        return $spec;
    }

    private static function requirePlace(string $place, string $at): void
    {
        try {
            Place::of($place, app(Shelves::class))->requireThere($place);
        } catch (OutsideShelf $outside) {
            self::refuse($at, rtrim($outside->getMessage(), '.'));
        }
    }

    private static function refuse(string $field, string $why): never
    {
        Problem::throw(422, 'invalid', $why.'; nothing was ordered.', ['pointer' => '/'.$field]);
    }
}
