<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Sound\Level;

/** What was measured on a finished delivery. */
final readonly class Receipt
{
    /**
     * @param  ?Level  $before  of the sound as it came in
     * @param  ?Level  $after  of the result, read back and decoded; null where nobody here can decode it
     * @param  bool  $identical  whether every sample read back is the one that was meant
     * @param  string  $checksum  XXH128 of the file, hexadecimal
     * @param  list<string>  $notes
     * @param  ?array<string, mixed>  $level  target, gain and figures before and after, where a level was set
     * @param  list<array<string, mixed>>  $sounds  of a film: what each sound track became
     */
    public function __construct(
        public int $samples,
        public int $rate,
        public string $layout,
        public string $audio,
        public int $bytes,
        public int $sourceBytes,
        public ?Level $before,
        public ?Level $after,
        public bool $identical,
        public string $checksum,
        public array $notes,
        public ?array $level = null,
        public array $sounds = [],
    ) {
    }

    /** @param  array<string, mixed>  $level */
    public function withLevel(array $level): self
    {
        return new self($this->samples, $this->rate, $this->layout, $this->audio, $this->bytes, $this->sourceBytes, $this->before, $this->after, $this->identical, $this->checksum, $this->notes, $level, $this->sounds);
    }

    /** @param  list<string>  $notes */
    public function withNotes(array $notes): self
    {
        return new self($this->samples, $this->rate, $this->layout, $this->audio, $this->bytes, $this->sourceBytes, $this->before, $this->after, $this->identical, $this->checksum, [...$this->notes, ...$notes], $this->level, $this->sounds);
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'samples' => $this->samples,
            'rate' => $this->rate,
            'layout' => $this->layout,
            'form' => $this->audio,
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
            'level' => $this->level,
            'sounds' => $this->sounds,
        ];
    }
}
