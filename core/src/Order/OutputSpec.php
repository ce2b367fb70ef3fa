<?php

declare(strict_types=1);

namespace Octavox\Core\Order;

use Octavox\Core\Copying;
use Octavox\Core\Name\NamePattern;
use Octavox\Core\Name\Signs;
use Octavox\Core\Tag\Broadcast;
use Octavox\Core\Tag\FreeName;
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

    public const FIELDS = [
        'version', 'container', 'picture', 'sounds', 'length', 'tags', 'name', 'place', 'if_exists', 'if_right', 'name_signs', 'tag_signs',
        'cover', 'broadcast',
    ];

    /** The place of results that lie in the folder of their source. */
    public const BESIDE = 'beside';

    private const MOST_SOUNDS = 100;

    private const MOST_TAGS = 200;

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
        return new self(
            $this->container ?? $beneath->container, $this->picture ?? $beneath->picture, self::soundsOver($this->sounds, $beneath->sounds),
            $this->length ?? $beneath->length, $this->tags === null ? $beneath->tags : $this->tags + ($beneath->tags ?? []),
            $this->name ?? $beneath->name, $this->place ?? $beneath->place, $this->ifExists ?? $beneath->ifExists,
            $this->ifRight ?? $beneath->ifRight, $this->nameSigns ?? $beneath->nameSigns, $this->tagSigns ?? $beneath->tagSigns,
            $this->cover ?? $beneath->cover, $this->broadcast?->over($beneath->broadcast) ?? $beneath->broadcast,
        );
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
        $own = ['container' => 'container', 'picture' => 'picture', 'length' => 'length', 'name' => 'name', 'place' => 'place',
            'if_exists' => 'ifExists', 'if_right' => 'ifRight', 'name_signs' => 'nameSigns', 'tag_signs' => 'tagSigns', 'tags' => 'tags',
            'cover' => 'cover', 'broadcast' => 'broadcast'];
        $tags = array_diff_key($this->tags ?? [], array_flip(array_map(fn (string $field): string => substr($field, 5),
            array_filter($fields, fn (string $field): bool => str_starts_with($field, 'tags.')))));
        $sounds = array_map(fn (SoundSpec $sound): SoundSpec => $sound->without(...$fields), $this->sounds);

        return $this->copy([
            'tags' => $tags === [] ? null : $tags, ...array_fill_keys(array_values(array_intersect_key($own, array_flip($fields))), null),
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

    /** The same with other parts; a part that is given as null is no longer said. */
    public function with(mixed ...$parts): self
    {
        return $this->copy($parts);
    }

    /** @return non-empty-list<SoundSpec> one that says nothing where nothing is said of sounds */
    public function sounds(): array
    {
        return $this->sounds === [] ? [new SoundSpec] : $this->sounds;
    }

    /** @return array<string, mixed> only what is said, and the version */
    public function toArray(): array
    {
        return array_filter([
            'version' => self::VERSION,
            'container' => $this->container,
            'picture' => $this->picture?->value,
            'sounds' => $this->sounds === [] ? null
                : array_map(fn (SoundSpec $sound): array|object => $sound->isEmpty() ? (object) [] : $sound->toArray(), $this->sounds),
            'length' => $this->length?->value,
            'tags' => $this->tags === null ? null : (object) $this->tags,
            'name' => $this->name,
            'place' => $this->place,
            'if_exists' => $this->ifExists?->value,
            'if_right' => $this->ifRight?->value,
            'name_signs' => $this->nameSigns?->value,
            'tag_signs' => $this->tagSigns?->value,
            'cover' => $this->cover,
            'broadcast' => $this->broadcast === null ? null : (object) $this->broadcast->toArray(),
        ], fn (mixed $value): bool => $value !== null);
    }

    /**
     * @param  array<array-key, mixed>  $document  what {@see self::toArray()} gave, or somebody wrote
     *
     * @throws SpecInvalid which names the field
     */
    public static function fromArray(array $document): self
    {
        $fields = new SpecFields($document, self::FIELDS);
        $version = $fields->number('version', 1, PHP_INT_MAX) ?? throw $fields->wrong('version', (string) self::VERSION);
        if ($version > self::VERSION) {
            throw SpecInvalid::version($version, self::VERSION);
        }

        return new self(
            $fields->text('container', 40), $fields->choice('picture', PictureChoice::class), self::readSounds($fields),
            self::readLength($fields),
            self::readTags($fields), $fields->text('name', 400), $fields->text('place'), $fields->choice('if_exists', IfExists::class),
            $fields->choice('if_right', IfRight::class), $fields->choice('name_signs', Signs::class),
            $fields->choice('tag_signs', Signs::class), $fields->text('cover'), self::readBroadcast($fields),
        );
    }

    /** @throws SpecInvalid */
    public static function fromJson(string $json, string $path = ''): self
    {
        $document = json_decode($json, true, 16);

        return is_array($document) ? self::fromArray($document) : throw SpecInvalid::unreadable($path);
    }

    /**
     * One that speaks of all sounds lies over each of those beneath; others lie over the one that speaks of the same tracks, else of all.
     *
     * @param  list<SoundSpec>  $own
     * @param  list<SoundSpec>  $beneath
     * @return list<SoundSpec>
     */
    private static function soundsOver(array $own, array $beneath): array
    {
        if ($own === [] || $beneath === []) {
            return $own === [] ? $beneath : $own;
        }
        if (count($own) === 1 && $own[0]->tracks === null) {
            return array_map(fn (SoundSpec $sound): SoundSpec => $own[0]->over($sound), $beneath);
        }

        return array_map(function (SoundSpec $sound) use ($beneath): SoundSpec {
            $same = array_values(array_filter($beneath, fn (SoundSpec $one): bool => $one->tracks === $sound->tracks));
            $common = array_values(array_filter($beneath, fn (SoundSpec $one): bool => $one->tracks === null));
            $found = $same[0] ?? $common[0] ?? (count($beneath) === 1 ? $beneath[0] : null);

            return $found === null ? $sound : $sound->over($found);
        }, $own);
    }

    /**
     * @return list<SoundSpec>
     *
     * @throws SpecInvalid
     */
    private static function readSounds(SpecFields $fields): array
    {
        $sounds = [];
        foreach ($fields->map('sounds') ?? [] as $number => $sound) {
            $sounds[] = is_int($number) && $number < self::MOST_SOUNDS && is_array($sound)
                ? SoundSpec::fromArray($sound, sprintf('sounds[%d].', $number))
                : throw $fields->wrong('sounds', sprintf('a list of at most %d objects', self::MOST_SOUNDS));
        }

        return $sounds;
    }

    /** @throws SpecInvalid */
    private static function readBroadcast(SpecFields $fields): ?Broadcast
    {
        $given = $fields->map('broadcast');
        foreach ($given ?? [] as $field => $value) {
            if (! is_string($value) || ! Broadcast::holds((string) $field, $value)) {
                throw $fields->wrong('broadcast.'.$field, match ((string) $field) {
                    'date' => 'a date such as 2026-05-09',
                    'time' => 'a time such as 14:03:22',
                    default => 'a text of a field that Broadcast WAV has, of as many bytes as it has room for',
                });
            }
        }

        return $given === null ? null : Broadcast::fromArray($given);
    }

    /** @throws SpecInvalid */
    private static function readLength(SpecFields $fields): ?Length
    {
        $text = $fields->text('length', 40);

        return $text === null ? null : Length::tryFrom($text) ?? throw $fields->wrong('length', 'sound, picture, or a time such as 0:30');
    }

    /**
     * @return ?array<string, string|list<string>|null>
     *
     * @throws SpecInvalid
     */
    private static function readTags(SpecFields $fields): ?array
    {
        $tags = $fields->map('tags');
        if (count($tags ?? []) > self::MOST_TAGS) {
            throw $fields->wrong('tags', sprintf('an object of at most %d fields', self::MOST_TAGS));
        }
        foreach ($tags ?? [] as $field => $value) {
            $isText = $value === null || is_string($value) || is_array($value) && array_is_list($value)
                && array_filter($value, fn (mixed $one): bool => ! is_string($one)) === [];
            if (! $isText || TagField::tryFrom((string) $field) === null && FreeName::of((string) $field) === null) {
                throw $fields->wrong('tags.'.$field, 'a text, a list of texts, or null, of a field that tags can have');
            }
        }

        /** @var ?array<string, string|list<string>|null> */
        return $tags;
    }
}
