<?php

declare(strict_types=1);

namespace Octavox\Core\Order;

use Octavox\Core\Failure;

/** A way of making with a name: an output spec that people keep, share and use again. As JSON it follows `core/schema/recipe.json`. */
final readonly class Recipe
{
    public const VERSION = 1;

    public const FIELDS = ['version', 'name', 'title', 'note', 'spec'];

    private const MOST_NAME = 60;

    private const MOST_TITLE = 120;

    private const MOST_NOTE = 400;

    /**
     * @param  string  $name  a word for programs: small letters, figures, hyphens
     * @param  string  $note  what it is for, for people
     */
    private function __construct(public string $name, public string $title, public string $note, public OutputSpec $spec) {}

    /**
     * @throws RecipeInvalid
     * @throws Failure
     */
    public static function of(string $name, string $title, string $note, OutputSpec $spec): self
    {
        return self::fromArray(['version' => self::VERSION, 'name' => $name, 'title' => $title, 'note' => $note,
            'spec' => json_decode((string) json_encode($spec->toArray()), true)]);
    }

    /**
     * @param  array<array-key, mixed>  $document  what {@see self::toArray()} gave, or somebody wrote
     *
     * @throws RecipeInvalid which names the field
     * @throws Failure
     */
    public static function fromArray(array $document): self
    {
        try {
            $fields = new SpecFields($document, self::FIELDS);
            $version = $fields->number('version', 1, PHP_INT_MAX) ?? throw $fields->wrong('version', (string) self::VERSION);
            if ($version > self::VERSION) {
                throw SpecInvalid::version($version, self::VERSION);
            }
            $name = $fields->text('name', self::MOST_NAME) ?? '';
            $title = trim($fields->text('title', self::MOST_TITLE) ?? '');

            return new self(
                self::isName($name) ? $name : throw $fields->wrong('name', 'a word of small letters, figures and hyphens'),
                $title === '' ? throw $fields->wrong('title', 'a text') : $title, trim($fields->text('note', self::MOST_NOTE) ?? ''),
                self::used(OutputSpec::fromArray($fields->map('spec') ?? throw $fields->wrong('spec', 'a specification')), $fields),
            );
        } catch (SpecInvalid $wrong) {
            throw RecipeInvalid::because($wrong);
        }
    }

    /**
     * @throws RecipeInvalid
     * @throws Failure
     */
    public static function fromJson(string $json): self
    {
        $document = json_decode($json, true, 16);

        return is_array($document) ? self::fromArray($document) : throw RecipeInvalid::unreadable();
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return ['version' => self::VERSION, 'name' => $this->name, 'title' => $this->title, 'note' => $this->note,
            'spec' => $this->spec->toArray()];
    }

    /** A name for programs that comes of a title. */
    public static function nameOf(string $title): string
    {
        $letters = (string) \Normalizer::normalize(mb_strtolower(mb_scrub($title)), \Normalizer::FORM_KD);
        $name = trim((string) preg_replace(['/\p{M}+/u', '/[^a-z0-9]+/'], ['', '-'], $letters), '-');

        return $name === '' ? 'recipe' : rtrim(substr($name, 0, self::MOST_NAME - 5), '-');
    }

    private static function isName(string $name): bool
    {
        return preg_match('/^[a-z0-9][a-z0-9-]*$/D', $name) === 1;
    }

    /**
     * A recipe goes from hand to hand: a folder or a picture of somebody's machine has no place in it.
     *
     * @throws Failure
     */
    private static function used(OutputSpec $spec, SpecFields $fields): OutputSpec
    {
        if (! in_array($spec->cover, [null, ''], true)) {
            throw $fields->wrong('spec.cover', 'empty, or left out');
        }

        return $spec->place === null || $spec->place === OutputSpec::BESIDE ? $spec
            : throw $fields->wrong('spec.place', '“'.OutputSpec::BESIDE.'”, or left out');
    }
}
