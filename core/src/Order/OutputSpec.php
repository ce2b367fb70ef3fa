<?php

declare(strict_types=1);

namespace Octavox\Core\Order;

use Octavox\Core\Copying;
use Octavox\Core\Name\NamePattern;
use Octavox\Core\Name\Signs;
use Octavox\Core\Tag\Broadcast;
use Octavox\Core\Tag\TagField;

/**
 * Everything that can be asked of results, and the only form in which it is asked: the page, the command line, recipes and tests build
 * this.
 * Every part is optional; what one spec does not say, the one beneath it says ({@see self::over()}), and at last the source.
 * As JSON it follows `core/schema/output-spec.json`.
 */
final readonly class OutputSpec
{
    use Copying;

    public const VERSION = 1;

    /** The place of results that lie in the folder of their source. */
    public const BESIDE = 'beside';

    /**
     * @param  ?string  $container  name of a sound or video format
     * @param  list<SoundSpec>  $sounds  one that names no tracks speaks of all; none where nothing is said
     * @param  ?array<string, string|list<string>|null>  $tags  new values by the field of {@see TagField}, or by another name; null
     *          takes the field away
     * @param  ?string  $name  a pattern, see {@see NamePattern}
     * @param  ?Signs  $nameSigns  what becomes of emoji and control characters in names
     * @param  ?Signs  $tagSigns  and in tags
     * @param  ?string  $cover  path of a JPEG or PNG picture; empty for none
     * @param  ?Broadcast  $broadcast  what is said in Broadcast WAV; one that says nothing only asks for it
     * @param  ?string  $place  folder of the results; {@see self::BESIDE} the source
     */
    public function __construct(
        public ?string $container = null,
        public ?PictureChoice $picture = null,
        public array $sounds = [],
        public ?Length $length = null,
        public ?array $tags = null,
        public ?string $name = null,
        public ?string $place = null,
        public ?IfExists $ifExists = null,
        public ?IfRight $ifRight = null,
        public ?Signs $nameSigns = null,
        public ?Signs $tagSigns = null,
        public ?string $cover = null,
        public ?Broadcast $broadcast = null,
    ) {}

    /** What this says, and where it says nothing what the other says. */
    public function over(self $beneath): self
    {
        $parts = [];
        foreach (SpecTable::output() as $field) {
            $parts[$field->property] = $field->over($this->{$field->property}, $beneath->{$field->property});
        }

        return $this->copy($parts);
    }

    /** What must lie over another to be this, as far as one that lies over another can say it. */
    public function since(self $other): self
    {
        $sounds = $this->sounds;
        if (count($sounds) < 2 && count($other->sounds) < 2) {
            $since = $this->sounds()[0]->since($other->sounds()[0]);
            $sounds = $since->isEmpty() ? [] : [$since];
        } elseif ($sounds == $other->sounds) {
            $sounds = [];
        }
        $tags = array_filter($this->tags ?? [], fn (mixed $value, string $field): bool => ! array_key_exists($field, $other->tags ?? [])
            || $other->tags[$field] !== $value, ARRAY_FILTER_USE_BOTH);
        $parts = array_diff_key(get_object_vars($this), ['sounds' => null, 'tags' => null]);
        $same = array_filter(array_keys($parts), fn (string $part): bool => $this->{$part} == $other->{$part});

        return $this->copy([...array_fill_keys($same, null), 'sounds' => $sounds, 'tags' => $tags === [] ? null : $tags]);
    }

    /**
     * The same without what is said of some fields.
     *
     * @param  string  ...$fields  names as in JSON, those of sounds as well; `tags.title` for one tag
     */
    public function without(string ...$fields): self
    {
        $tags = array_diff_key($this->tags ?? [], array_flip(array_map(fn (string $field): string => substr($field, 5),
            array_filter($fields, fn (string $field): bool => str_starts_with($field, 'tags.')))));
        $sounds = array_map(fn (SoundSpec $sound): SoundSpec => $sound->without(...$fields), $this->sounds);

        return $this->copy([
            'tags' => $tags === [] ? null : $tags,
            ...SpecTable::unsaid(SpecTable::output(), array_values($fields)),
            'sounds' => count($sounds) === 1 && $sounds[0]->isEmpty() ? [] : $sounds,
        ]);
    }

    /** @return list<string> names of the fields that something is said of, as {@see self::without()} takes them */
    public function said(): array
    {
        $own = array_diff(array_keys($this->toArray()), ['version', 'tags', 'sounds']);
        $tags = array_map(fn (string $field): string => 'tags.'.$field, array_keys($this->tags ?? []));

        return [...array_values($own), ...$tags, ...$this->sounds()[0]->said()];
    }

    public function isEmpty(): bool
    {
        return count($this->toArray()) === 1;
    }

    public function withContainer(?string $container): self
    {
        return $this->copy(['container' => $container]);
    }

    public function withPicture(?PictureChoice $picture): self
    {
        return $this->copy(['picture' => $picture]);
    }

    /** @param  list<SoundSpec>  $sounds */
    public function withSounds(array $sounds): self
    {
        return $this->copy(['sounds' => $sounds]);
    }

    /** @param  ?array<string, string|list<string>|null>  $tags */
    public function withTags(?array $tags): self
    {
        return $this->copy(['tags' => $tags]);
    }

    public function withName(?string $name): self
    {
        return $this->copy(['name' => $name]);
    }

    public function withPlace(?string $place): self
    {
        return $this->copy(['place' => $place]);
    }

    public function withTagSigns(?Signs $tagSigns): self
    {
        return $this->copy(['tagSigns' => $tagSigns]);
    }

    public function withCover(?string $cover): self
    {
        return $this->copy(['cover' => $cover]);
    }

    public function withBroadcast(?Broadcast $broadcast): self
    {
        return $this->copy(['broadcast' => $broadcast]);
    }

    /** @return non-empty-list<SoundSpec> one that says nothing where nothing is said of sounds */
    public function sounds(): array
    {
        return $this->sounds === [] ? [new SoundSpec] : $this->sounds;
    }

    /** @return array<string, mixed> only what is said, and the version */
    public function toArray(): array
    {
        $values = ['version' => self::VERSION];
        foreach (SpecTable::output() as $field) {
            $values[$field->name] = $field->written($this->{$field->property});
        }

        return array_filter($values, fn (mixed $value): bool => $value !== null);
    }

    /**
     * @param  array<array-key, mixed>  $document  what {@see self::toArray()} gave, or somebody wrote
     *
     * @throws SpecInvalid which names the field
     */
    public static function fromArray(array $document): self
    {
        $fields = new SpecFields($document, ['version', ...SpecTable::names(SpecTable::output())]);
        $version = $fields->number('version', 1, PHP_INT_MAX) ?? throw $fields->wrong('version', (string) self::VERSION);
        if ($version > self::VERSION) {
            throw SpecInvalid::version($version, self::VERSION);
        }

        return (new self)->copy(SpecTable::read(SpecTable::output(), $fields));
    }

    /** @throws SpecInvalid */
    public static function fromJson(string $json, string $path = ''): self
    {
        $document = json_decode($json, true, 16);

        return is_array($document) ? self::fromArray($document) : throw SpecInvalid::unreadable($path);
    }
}
