<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Raw\HeaderlessFormat;
use Octavox\Core\Json\Fields;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Tag\Tags;

/** Exactly what will be made: a plain value that prints as JSON and can be carried out on any machine that has the source. */
final readonly class Plan
{
    /**
     * @param  int  $sourceBytes  size when planned; a source that changed since is refused
     * @param  int  $moment  samples of the source's time at which the result begins: where the picture starts
     * @param  string  $format  name of the output format
     * @param  int  $samples  the result's length, exact
     * @param  list<string>  $steps  what is done to the sound, in words, in order
     * @param  string  $name  with extension
     * @param  ?int  $picture  number of the picture track that is kept, null where a file of sound alone is made
     * @param  ?int  $lasts  samples of the source's time from the moment on, null where the result lasts as the track presents
     * @param  list<int>  $companions  numbers of the subtitles and time codes that a film keeps
     * @param  list<PlannedSound>  $more  further sound tracks of a film
     * @param  list<string>  $warnings  what somebody should know before it is made
     * @param  ?HeaderlessFormat  $stated  what the source holds, where it has no header
     */
    public function __construct(
        public string $source,
        public int $sourceBytes,
        public int $track,
        public int $moment,
        public Action $action,
        public string $format,
        public AudioFormat $audio,
        public RateControl $setting,
        public int $samples,
        public int $predictedBytes,
        public Tags $tags,
        public string $folder,
        public string $name,
        public Existing $existing,
        public array $steps,
        public bool $dither,
        public ?HeaderlessFormat $stated = null,
        public ?int $picture = null,
        public array $more = [],
        public ?int $lasts = null,
        public array $companions = [],
        public Shape $shape = new Shape,
        public array $warnings = [],
    ) {
    }

    public function path(): string
    {
        return rtrim($this->folder, '/').'/'.$this->name;
    }

    public function into(string $folder): self
    {
        return $this->with(['folder' => $folder]);
    }

    /** With another prediction of its size, by whoever knows the sound. */
    public function expecting(int $bytes): self
    {
        return $this->with(['predicted_bytes' => $bytes]);
    }

    public function named(string $name): self
    {
        return $this->with(['name' => $name]);
    }

    /** @param  array<string, int|string>  $changes  fields as {@see self::toArray()} has them */
    private function with(array $changes): self
    {
        return self::fromArray($changes + $this->toArray());
    }

    /** @return list<PlannedSound> all sound tracks that will be in the result; none in a video without sound */
    public function sounds(): array
    {
        if ($this->isSilent()) {
            return [];
        }

        return [new PlannedSound($this->track, $this->action, $this->audio, $this->setting, $this->samples, $this->dither, $this->shape), ...$this->more];
    }

    /** Whether it is a video without sound. */
    public function isSilent(): bool
    {
        return $this->picture !== null && $this->track === 0;
    }

    /** Whether nothing is encoded anew. */
    public function isKept(): bool
    {
        return array_filter($this->sounds(), fn (PlannedSound $sound): bool => $sound->action === Action::Remade) === [];
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'source' => $this->source,
            'source_bytes' => $this->sourceBytes,
            'track' => $this->track,
            'moment' => $this->moment,
            'action' => $this->action->value,
            'format' => $this->format,
            ...StoredForm::fields($this->audio),
            'kbps' => $this->setting->kbps,
            'quality' => $this->setting->quality,
            'samples' => $this->samples,
            'predicted_bytes' => $this->predictedBytes,
            'tags' => (object) $this->tags->toArray(),
            'folder' => $this->folder,
            'name' => $this->name,
            'exists' => $this->existing->value,
            'steps' => $this->steps,
            'warnings' => $this->warnings,
            'dither' => $this->dither,
            'stated' => $this->stated === null ? null : (string) $this->stated,
            'picture' => $this->picture,
            'lasts' => $this->lasts,
            'companions' => $this->companions,
            'shape' => $this->shape->toArray(),
            'more' => array_map(fn (PlannedSound $sound): array => $sound->toArray(), $this->more),
        ];
    }

    /**
     * @param  array<array-key, mixed>  $plan  what {@see self::toArray()} gave
     *
     * @throws \UnexpectedValueException where it is not that
     */
    public static function fromArray(array $plan): self
    {
        $read = new Fields($plan);
        $audio = StoredForm::read($read);

        return new self(
            $read->text('source'),
            $read->number('source_bytes'),
            $read->number('track'),
            $read->number('moment'),
            Action::from($read->text('action')),
            $read->text('format'),
            $audio,
            $read->isNull('quality') ? RateControl::constant($read->number('kbps')) : RateControl::variable($read->number('quality')),
            $read->number('samples'),
            $read->number('predicted_bytes'),
            Tags::fromArray((array) ($plan['tags'] ?? [])),
            $read->text('folder'),
            $read->text('name'),
            Existing::from($read->text('exists')),
            array_map(fn (mixed $step): string => is_string($step) ? $step : '', $read->list('steps')),
            $read->bool('dither'),
            $read->isNull('stated') ? null : HeaderlessFormat::parse($read->text('stated')),
            $read->isNull('picture') ? null : $read->number('picture'),
            array_map(fn (Fields $sound): PlannedSound => PlannedSound::fromFields($sound), $read->isNull('more') ? [] : $read->each('more')),
            $read->isNull('lasts') ? null : $read->number('lasts'),
            $read->isNull('companions') ? [] : $read->numbers('companions'),
            Shape::stored($read, $audio->layout),
            $read->isNull('warnings') ? [] : array_map(fn (mixed $warning): string => is_string($warning) ? $warning : '', $read->list('warnings')),
        );
    }
}
