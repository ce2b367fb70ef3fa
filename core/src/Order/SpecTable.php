<?php

declare(strict_types=1);

namespace Octavox\Core\Order;

use Octavox\Core\Codec\RateControl;
use Octavox\Core\Codec\RateMode;
use Octavox\Core\Codec\StereoCoding;
use Octavox\Core\Name\Signs;
use Octavox\Core\Tag\Broadcast;
use Octavox\Core\Tag\FreeName;
use Octavox\Core\Tag\TagField;

/** All fields of specs, in the order in which they are written; what reads, writes, compares and describes specs goes by it. */
final class SpecTable
{
    private const MOST_KBPS = 100_000;

    private const MOST_HERTZ = 10_000_000;

    private const MOST_SOUNDS = 100;

    private const MOST_TAGS = 200;

    /** @var ?list<SpecField> */
    private static ?array $output = null;

    /** @var ?list<SpecField> */
    private static ?array $sound = null;

    /** @return list<SpecField> of {@see OutputSpec} */
    public static function output(): array
    {
        return self::$output ??= [
            SpecField::text('container', 'Name of a sound or video format, such as wav or mov.', 40),
            SpecField::choice('picture', PictureChoice::class),
            self::sounds(),
            new SpecField('length', self::readLength(...), SpecField::typed('string',
                'sound, picture, or a time such as 0:30: a longer sound is cut there, a shorter one gets silence.'),
                fn (Length $length): string => $length->value),
            self::tags(),
            SpecField::text('name', 'A pattern of folders and fields in braces, such as {artist}/{album}/[{track:2} - ]{title|stem}.', 400),
            SpecField::text('place', 'Folder of the results; beside: that of each source.'),
            SpecField::choice('if_exists', IfExists::class),
            SpecField::choice('if_right', IfRight::class),
            SpecField::choice('name_signs', Signs::class, 'What becomes of emoji and control characters in names.'),
            SpecField::choice('tag_signs', Signs::class, 'The same in tags.'),
            SpecField::text('cover', 'Path of a JPEG or PNG picture; empty for none.'),
            self::broadcast(),
        ];
    }

    /** @return list<SpecField> of {@see SoundSpec} */
    public static function sound(): array
    {
        return self::$sound ??= [
            SpecField::text('tracks',
                'Numbers or languages separated by commas, all, 2+3 for several as one sound, joined for all as one.', 200),
            SpecField::text('codec', 'Beside a picture: name of the sound format that it becomes; keep only keeps.', 40),
            self::rateControl(),
            SpecField::number('rate', 1, self::MOST_HERTZ, 'Hz'),
            SpecField::number('bit_depth', 1, 64),
            SpecField::text('layout', "A layout's word, or a map written channel by channel."),
            SpecField::texts('labels'),
            SpecField::text('pieces', 'Begin-end, separated by commas; chapters; silences:LEVEL:SECONDS.', 20_000),
            SpecField::bool('separate', 'Whether each piece becomes a result of its own.'),
            SpecField::bool('exact', 'Whether a piece is re-encoded rather than moved to frame borders.'),
            SpecField::text('fade_in', '', 40),
            SpecField::text('fade_out', '', 40),
            SpecField::text('level', 'gain:+3, peak:-1, rms:-20, lufs:-16, with a ceiling like lufs:-16:-2; empty leaves it.', 80),
            SpecField::bool('together', 'Whether all sounds of an order get one gain.'),
            SpecField::choice('stereo', StereoCoding::class,
                'Whether an encoder may use what two channels have in common. This and the next '
                .'two only bear on what is encoded, not on what is kept.'),
            SpecField::bool('checksums', 'Whether frames carry sums by which damage is noticed.'),
            SpecField::number('compression', 0, 10, "Level of the codec's own scale; more is smaller and slower."),
            SpecField::bool('dither', 'False rounds plainly where bits are lost.'),
            SpecField::bool('de_emphasis', 'Whether de-emphasis is applied to disc tracks that are flagged with pre-emphasis.'),
        ];
    }

    /**
     * @param  list<SpecField>  $table
     * @return list<string> names in JSON
     */
    public static function names(array $table): array
    {
        return array_map(fn (SpecField $field): string => $field->name, $table);
    }

    /**
     * @param  list<SpecField>  $table
     * @return array<string, mixed> values by property
     *
     * @throws SpecInvalid
     */
    public static function read(array $table, SpecFields $fields): array
    {
        $values = [];
        foreach ($table as $field) {
            $values[$field->property] = $field->read($fields);
        }

        return $values;
    }

    /**
     * @param  list<SpecField>  $table
     * @param  list<string>  $names  in JSON; those of other fields are left alone
     * @return array<string, null> by property
     */
    public static function unsaid(array $table, array $names): array
    {
        $gone = array_filter($table, fn (SpecField $field): bool => in_array($field->name, $names, true));

        return array_fill_keys(array_map(fn (SpecField $field): string => $field->property, $gone), null);
    }

    /** @return array<string, mixed> JSON Schema 2020-12 of {@see OutputSpec::toArray()} */
    public static function schema(): array
    {
        $properties = ['version' => ['type' => 'integer', 'minimum' => 1, 'maximum' => OutputSpec::VERSION]];
        foreach (self::output() as $field) {
            $properties[$field->name] = $field->schema(false);
        }

        return [
            '$schema' => 'https://json-schema.org/draft/2020-12/schema',
            'title' => 'Output spec',
            'description' => 'Everything that can be asked of results. Every part but the version is optional; what is not said is left to '
                .'the spec beneath, and at last to the source.',
            'type' => 'object',
            'additionalProperties' => false,
            'required' => ['version'],
            'properties' => $properties,
        ];
    }

    /** What `core/schema/output-spec.json` holds; `php bin/schema.php` writes it, and a test keeps it true. */
    public static function schemaText(): string
    {
        return json_encode(self::schema(), JSON_PRETTY_PRINT | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE | JSON_THROW_ON_ERROR)."\n";
    }

    private static function sounds(): SpecField
    {
        $properties = [];
        foreach (self::sound() as $field) {
            $properties[$field->name] = $field->schema(true);
        }

        return new SpecField('sounds', self::readSounds(...), [
            'type' => 'array',
            'maxItems' => self::MOST_SOUNDS,
            'description' => 'One that names no tracks speaks of all. A field that is null is left to the source whatever lies beneath.',
            'items' => ['type' => 'object', 'additionalProperties' => false, 'properties' => $properties],
        ], self::writtenSounds(...), SoundSpec::allOver(...));
    }

    private static function rateControl(): SpecField
    {
        return new SpecField('rate_control', self::readRateControl(...), [
            'type' => 'object',
            'additionalProperties' => false,
            'required' => ['mode'],
            'properties' => [
                'mode' => ['type' => 'string', 'enum' => ['exact', 'constant', 'average', 'nearest', 'variable']],
                'held' => ['type' => 'string', 'enum' => array_map(fn (RateMode $mode): string => $mode->value, RateMode::cases()),
                    'description' => 'Beside nearest: how the bit rate is held.'],
                'kbps' => ['type' => 'integer', 'minimum' => 1, 'maximum' => self::MOST_KBPS],
                'quality' => ['type' => 'integer', 'minimum' => 0, 'maximum' => 9],
            ],
        ], fn (RateControl $asked): array => $asked->quality !== null ? ['mode' => 'variable', 'quality' => $asked->quality]
            : array_filter([
                'mode' => $asked->exact ? $asked->mode->value ?? 'exact' : 'nearest', 'kbps' => $asked->kbps,
                'held' => $asked->exact ? null : $asked->mode?->value,
            ], fn (mixed $value): bool => $value !== null));
    }

    private static function tags(): SpecField
    {
        return new SpecField('tags', self::readTags(...), [
            'type' => 'object',
            'maxProperties' => self::MOST_TAGS,
            'description' => 'New values by field: a text, a list of texts, or null, which takes the field away.',
        ], fn (array $tags): object => (object) $tags, fn (array $own, array $beneath): array => $own + $beneath);
    }

    private static function broadcast(): SpecField
    {
        $says = ['date' => '2026-05-09', 'time' => '14:03:22'];
        $properties = [];
        foreach (array_keys(Broadcast::ROOM) as $field) {
            $properties[$field] = SpecField::typed('string', $says[$field] ?? '');
        }

        return new SpecField('broadcast', self::readBroadcast(...), [
            'type' => 'object',
            'additionalProperties' => false,
            'description' => 'What is said in Broadcast WAV (EBU Tech 3285); an object that says nothing only asks for it.',
            'properties' => $properties,
        ], fn (Broadcast $said): object => (object) $said->toArray(),
            fn (Broadcast $own, Broadcast $beneath): Broadcast => $own->over($beneath));
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

    /**
     * @param  list<SoundSpec>  $sounds
     * @return ?list<array<string, mixed>|object>
     */
    private static function writtenSounds(array $sounds): ?array
    {
        return $sounds === [] ? null
            : array_map(fn (SoundSpec $sound): array|object => $sound->isEmpty() ? (object) [] : $sound->toArray(), $sounds);
    }

    /** @throws SpecInvalid */
    private static function readRateControl(SpecFields $fields): ?RateControl
    {
        $own = $fields->inner('rate_control', ['mode', 'kbps', 'quality', 'held']);
        if ($own === null) {
            return null;
        }
        $kbps = $own->number('kbps', 1, self::MOST_KBPS);
        $quality = $own->number('quality', 0, 9);

        return match ([$own->text('mode'), $kbps === null, $quality === null]) {
            ['exact', false, true] => RateControl::exactly((int) $kbps),
            ['constant', false, true] => RateControl::exactly((int) $kbps)->held(RateMode::Constant),
            ['average', false, true] => RateControl::exactly((int) $kbps)->held(RateMode::Average),
            ['nearest', false, true] => RateControl::near((int) $kbps)->held($own->choice('held', RateMode::class)),
            ['variable', true, false] => RateControl::variable((int) $quality),
            default => throw $fields->wrong('rate_control', 'exact, constant, average or nearest with kbps, or variable with quality'),
        };
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
            if (! $isText || TagField::tryFrom((string) $field) === null && FreeName::clean((string) $field) === null) {
                throw $fields->wrong('tags.'.$field, 'a text, a list of texts, or null, of a field that tags can have');
            }
        }

        /** @var ?array<string, string|list<string>|null> */
        return $tags;
    }
}
