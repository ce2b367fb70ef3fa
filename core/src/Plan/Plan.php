<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Json\Fields;
use Octavox\Core\Media\SourceRef;
use Octavox\Core\Tag\Broadcast;
use Octavox\Core\Tag\Tags;

/** Exactly what will be made: a plain value that prints as JSON and can be carried out on any machine that has the source. */
final readonly class Plan
{
    public const VERSION = 2;

    /**
     * @param  ?PicturePlan  $picture  null where a file of sound alone is made
     * @param  list<SoundPlan>  $sounds  one in a file of sound alone; none in a video without sound
     * @param  list<int>  $auxiliaries  numbers of the subtitles and time codes that a video keeps
     * @param  Tags  $tags  of the result, without cover, chapters and what else the maker reads from the source
     * @param  ?string  $cover  path of the picture that it gets, empty for none; null leaves the source's own
     * @param  list<Step>  $steps  what is done, in order
     * @param  list<Step>  $warnings  what somebody should know before it is made
     */
    public function __construct(
        public SourceRef $source,
        public Target $target,
        public ?PicturePlan $picture,
        public array $sounds,
        public array $auxiliaries,
        public Tags $tags,
        public array $steps,
        public array $warnings = [],
        public ?string $cover = null,
    ) {}

    public function path(): string
    {
        return $this->target->path();
    }

    public function name(): string
    {
        return $this->target->name;
    }

    public function withTarget(Target $target): self
    {
        return new self($this->source, $target, $this->picture, $this->sounds, $this->auxiliaries, $this->tags,
            $this->steps, $this->warnings, $this->cover);
    }

    public function named(string $name): self
    {
        return $this->withTarget($this->target->named($name));
    }

    /** The sound that is told of where only one can be: the first; null in a video without sound. */
    public function sound(): ?SoundPlan
    {
        return $this->sounds[0] ?? null;
    }

    /** The sound of a file that is sound alone. */
    public function onlySound(): SoundPlan
    {
        return $this->sounds[0] ?? throw new \LogicException('A video without sound has no sound to carry out.');
    }

    /** Samples of the first sound by which progress is told, milliseconds of the picture where there is none. */
    public function length(): int
    {
        return $this->sound()->samples ?? $this->picture->milliseconds ?? 0;
    }

    /** How many of them make a second. */
    public function lengthRate(): int
    {
        return max(1, $this->sound()->audio->rate ?? 1000);
    }

    public function seconds(): float
    {
        return $this->length() / $this->lengthRate();
    }

    /** Whether it is a video without sound. */
    public function isSilent(): bool
    {
        return $this->sounds === [];
    }

    /** Whether nothing is encoded anew. */
    public function isKept(): bool
    {
        return array_filter($this->sounds, fn (SoundPlan $sound): bool => ! $sound->isKept()) === [];
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'version' => self::VERSION,
            'source' => $this->source->toArray(),
            'target' => $this->target->toArray(),
            'picture' => $this->picture === null ? null
                : ['track' => $this->picture->track, 'milliseconds' => $this->picture->milliseconds],
            'sounds' => array_map(fn (SoundPlan $sound): array => $sound->toArray(), $this->sounds),
            'auxiliaries' => $this->auxiliaries,
            'tags' => (object) $this->tags->toArray(),
            'broadcast' => $this->tags->broadcast === null ? null : (object) $this->tags->broadcast->toArray(),
            'cover' => $this->cover,
            'steps' => array_map(fn (Step $step): array => $step->toArray(), $this->steps),
            'warnings' => array_map(fn (Step $step): array => $step->toArray(), $this->warnings),
        ];
    }

    /** Byte for byte the same for equal plans, wherever they were made. */
    public function toJson(): string
    {
        return json_encode($this->toArray(),
            JSON_THROW_ON_ERROR | JSON_INVALID_UTF8_SUBSTITUTE | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES
            | JSON_PRESERVE_ZERO_FRACTION);
    }

    /**
     * Plans of earlier versions are brought up to this one.
     *
     * @param  array<array-key, mixed>  $document  what {@see self::toArray()} gave
     *
     * @throws PlanUnreadable where it is not that, or of a version to come
     */
    public static function fromArray(array $document): self
    {
        $version = is_int($document['version'] ?? null) ? $document['version'] : 1;
        if ($version > self::VERSION) {
            throw PlanUnreadable::future($version, self::VERSION);
        }
        try {
            return self::read(new Fields($version < 2 ? PlanVersion1::upgraded(new Fields($document)) : $document));
        } catch (\UnexpectedValueException $broken) {
            throw PlanUnreadable::broken($broken->getMessage());
        }
    }

    /** @throws \UnexpectedValueException */
    private static function read(Fields $fields): self
    {
        $part = fn (string $name): Fields => $fields->optional($name) ?? throw new \UnexpectedValueException("The field $name is missing.");
        $picture = $fields->optional('picture');
        $plan = new self(
            SourceRef::fromFields($part('source')),
            Target::fromFields($part('target')),
            $picture === null ? null : new PicturePlan($picture->number('track'), $picture->number('milliseconds')),
            array_map(SoundPlan::fromFields(...), $fields->each('sounds')),
            $fields->numbers('auxiliaries'),
            Tags::fromArray((array) ($fields->all()['tags'] ?? throw new \UnexpectedValueException('The field tags is missing.')))
                ->withBroadcast($fields->isNull('broadcast') ? null : Broadcast::fromArray($fields->map('broadcast'))),
            array_map(Step::fromFields(...), $fields->each('steps')),
            array_map(Step::fromFields(...), $fields->each('warnings')),
            $fields->textOrNull('cover'),
        );

        return $plan->sounds === [] && $plan->picture === null
            ? throw new \UnexpectedValueException('It holds neither sound nor picture.') : $plan;
    }
}
