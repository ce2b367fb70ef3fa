<?php

declare(strict_types=1);

namespace Octavox\Core\Destination;

use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Order\SpecFields;
use Octavox\Core\Order\SpecInvalid;

/**
 * Where results go to be used, as rules of what is accepted there, and what is made of sources that cannot be kept. As JSON it follows
 * `core/schema/destination.json`.
 */
final readonly class Destination
{
    public const VERSION = 1;

    public const FIELDS = ['version', 'name', 'title', 'note', 'accepts', 'limits', 'spec', 'spec_with_picture'];

    private const MOST_KINDS = 50;

    /**
     * @param  string  $name  a word for programs: small letters, figures, hyphens
     * @param  string  $note  what it is, for people
     * @param  non-empty-list<Acceptance>  $accepts
     * @param  OutputSpec  $spec  what is made of sound that must be remade
     * @param  ?OutputSpec  $specWithPicture  the same for a source with a picture that is kept; null where only sound is wanted
     */
    private function __construct(public string $name, public string $title, public string $note, public array $accepts,
        public Limits $limits,
        public OutputSpec $spec, public ?OutputSpec $specWithPicture) {}

    /**
     * @param  array<array-key, mixed>  $document  what {@see self::toArray()} gave, or somebody wrote
     *
     * @throws DestinationInvalid which names the field
     */
    public static function fromArray(array $document): self
    {
        try {
            return self::read(new SpecFields($document, self::FIELDS));
        } catch (SpecInvalid $wrong) {
            throw DestinationInvalid::because($wrong);
        }
    }

    /** @throws DestinationInvalid */
    public static function fromJson(string $json): self
    {
        $document = json_decode($json, true, 16);

        return is_array($document) ? self::fromArray($document) : throw DestinationInvalid::unreadable();
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return array_filter([
            'version' => self::VERSION, 'name' => $this->name, 'title' => $this->title, 'note' => $this->note,
            'accepts' => array_map(fn (Acceptance $kind): array => $kind->toArray(), $this->accepts), 'limits' => $this->limits->toArray(),
            'spec' => $this->spec->toArray(), 'spec_with_picture' => $this->specWithPicture?->toArray(),
        ], fn (mixed $value): bool => $value !== null && $value !== [] && $value !== '');
    }

    /** @return list<Rejection> why such a file is refused, by the kind that it is nearest to; none where it is accepted */
    public function refuses(Facts $facts): array
    {
        $fewest = null;
        foreach ($this->accepts as $kind) {
            $unfit = $kind->refuses($facts);
            // Where a container can stay, that is the nearest kind; next one with a picture, or without, as this is.
            $has = fn (Rule $rule): int => count(array_filter($unfit, fn (Rejection $one): bool => $one->rule === $rule));
            $weight = [$has(Rule::Container), $has(Rule::Picture), count($unfit)];
            if ($fewest === null || $weight < $fewest[0]) {
                $fewest = [$weight, $unfit];
            }
        }

        return [...($fewest[1] ?? []), ...$this->limits->refuses($facts)];
    }

    /** @throws SpecInvalid */
    private static function read(SpecFields $fields): self
    {
        $version = $fields->number('version', 1, PHP_INT_MAX) ?? throw $fields->wrong('version', (string) self::VERSION);
        if ($version > self::VERSION) {
            throw SpecInvalid::version($version, self::VERSION);
        }
        $name = $fields->text('name', 60) ?? '';
        $title = trim($fields->text('title', 120) ?? '');
        $accepts = [];
        foreach ($fields->map('accepts') ?? [] as $number => $kind) {
            $accepts[] = is_array($kind) && is_int($number) && $number < self::MOST_KINDS
                ? Acceptance::fromArray($kind, "accepts[$number].")
                : throw $fields->wrong('accepts', 'a list of objects, at most '.self::MOST_KINDS);
        }
        if ($accepts === []) {
            throw $fields->wrong('accepts', 'a list of at least one kind of file');
        }
        $spec = self::made($fields, 'spec', $accepts) ?? throw $fields->wrong('spec', 'a specification');

        return new self(
            preg_match('/^[a-z0-9][a-z0-9-]*$/', $name) === 1 ? $name
                : throw $fields->wrong('name', 'a word of small letters, figures and hyphens'),
            $title === '' ? throw $fields->wrong('title', 'a text') : $title, $fields->text('note', 400) ?? '',
            $accepts,
            Limits::fromArray($fields->map('limits') ?? []),
            $spec, self::made($fields, 'spec_with_picture', $accepts),
        );
    }

    /**
     * What is made must be of a kind that is accepted: else the destination contradicts itself.
     *
     * @param  list<Acceptance>  $accepts
     *
     * @throws SpecInvalid
     */
    private static function made(SpecFields $fields, string $name, array $accepts): ?OutputSpec
    {
        $document = $fields->map($name);
        if ($document === null) {
            return null;
        }
        $spec = OutputSpec::fromArray($document);
        if (! in_array($spec->cover, [null, ''], true)) {
            throw $fields->wrong($name.'.cover', 'empty, or left out');
        }
        $accepted = array_values(array_unique(array_merge(...array_map(fn (Acceptance $kind): array => $kind->containers, $accepts))));

        return in_array(Facts::containerOf((string) $spec->container), $accepted, true) ? $spec
            : throw $fields->wrong($name.'.container', 'one of those that are accepted there: '.implode(', ', $accepted));
    }
}
