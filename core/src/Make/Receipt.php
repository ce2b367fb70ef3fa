<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Copying;
use Octavox\Core\Json\Fields;
use Octavox\Core\Sound\Level;

/** What was measured on a finished result. */
final readonly class Receipt
{
    use Copying;

    public const VERSION = 2;

    /**
     * @param  int  $samples  of the first sound
     * @param  string  $format  of the first sound, in words
     * @param  int  $sourceBytes  of the source's coded sound; of a video of the whole source
     * @param  ?Level  $before  of the sound as it came in; null where nobody has decoded it
     * @param  ?Level  $after  of the result, read back and decoded; null where that was not needed
     * @param  bool  $identical  whether every sample read back is the one that was meant
     * @param  string  $checksum  XXH128 of the file, hexadecimal
     * @param  list<string>  $notes
     * @param  ?LevelReceipt  $level  where a level was set
     * @param  list<SoundReceipt>  $sounds  of a video
     */
    public function __construct(
        public int $samples,
        public int $rate,
        public string $layout,
        public string $format,
        public int $bytes,
        public int $sourceBytes,
        public ?Level $before,
        public ?Level $after,
        public bool $identical,
        public string $checksum,
        public array $notes,
        public ?LevelReceipt $level = null,
        public array $sounds = [],
    ) {}

    /** @param  list<string>  $notes */
    public function withNotes(array $notes): self
    {
        return $this->copy(['notes' => [...$this->notes, ...$notes]]);
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'version' => self::VERSION,
            'samples' => $this->samples,
            'rate' => $this->rate,
            'layout' => $this->layout,
            'format' => $this->format,
            'bytes' => $this->bytes,
            'source_bytes' => $this->sourceBytes,
            'peak_before' => $this->before?->peakDecibels(),
            'rms_before' => $this->before?->rmsDecibels(),
            'peak_after' => $this->after?->peakDecibels(),
            'rms_after' => $this->after?->rmsDecibels(),
            'measured' => $this->after !== null,
            'read_back' => true,
            'identical' => $this->identical,
            'checksum' => 'xxh128:'.$this->checksum,
            'notes' => $this->notes,
            'level' => $this->level?->toArray(),
            'sounds' => array_map(fn (SoundReceipt $sound): array => $sound->toArray(), $this->sounds),
        ];
    }

    /**
     * Receipts of the first version had `form` for `format`.
     *
     * @param  array<array-key, mixed>  $document  what {@see self::toArray()} gave
     *
     * @throws \UnexpectedValueException where it is not that, or of a version to come
     */
    public static function fromArray(array $document): self
    {
        if (is_int($document['version'] ?? null) && $document['version'] > self::VERSION) {
            throw new \UnexpectedValueException('A receipt is of a version to come.');
        }
        $upgraded = fn (array $values): array => isset($values['form']) ? ['format' => $values['form']] + $values : $values;
        $fields = new Fields($upgraded($document));
        $level = $fields->optional('level');

        return new self(
            $fields->number('samples'), $fields->number('rate'), $fields->text('layout'), $fields->text('format'), $fields->number('bytes'),
            $fields->number('source_bytes'),
            Level::ofDecibels($fields->floatOrNull('peak_before'), $fields->floatOrNull('rms_before')),
            $fields->isNull('measured') || $fields->bool('measured')
                ? Level::ofDecibels($fields->floatOrNull('peak_after'), $fields->floatOrNull('rms_after')) ?? new Level(0.0, 0.0) : null,
            $fields->bool('identical'), (string) preg_replace('/^xxh128:/', '', $fields->text('checksum')),
            array_values(array_filter($fields->list('notes'), is_string(...))),
            $level === null ? null : LevelReceipt::fromFields($level),
            $fields->isNull('sounds') ? []
                : array_map(fn (Fields $sound): SoundReceipt => SoundReceipt::fromFields(new Fields($upgraded($sound->all()))),
                    $fields->each('sounds')),
        );
    }
}
