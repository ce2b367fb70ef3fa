<?php

declare(strict_types=1);

namespace Octavox\Core\Media;

/** One stream inside a source. */
final readonly class Track
{
    /**
     * @param  int  $number  from 1, in the order of the file
     * @param  ?AudioFormat  $sound  with sound tracks only
     * @param  ?VideoFormat  $picture  with picture tracks only
     * @param  ?string  $language  three letters (ISO 639-2), null where not stated
     * @param  int  $codedBytes  of all packets together, 0 where unknown
     * @param  string  $coding  of text and time code, as its container names it; empty where it is not copied
     */
    private function __construct(
        public int $number,
        public TrackKind $kind,
        public ?AudioFormat $sound,
        public Timeline $timeline,
        public ?VideoFormat $picture,
        public ?string $language,
        public int $codedBytes,
        public string $name,
        public string $coding = '',
    ) {}

    public static function sound(int $number, AudioFormat $audio, Timeline $timeline, int $codedBytes, ?string $language = null,
        string $name = ''): self
    {
        return new self($number, TrackKind::Sound, $audio, $timeline, null, $language, $codedBytes, $name);
    }

    public static function picture(int $number, VideoFormat $format, int $codedBytes, ?string $language = null, string $name = ''): self
    {
        return new self($number, TrackKind::Picture, null, Timeline::plain(0), $format, $language, $codedBytes, $name);
    }

    public static function text(int $number, ?string $language = null, string $name = '', string $coding = ''): self
    {
        return new self($number, TrackKind::Text, null, Timeline::plain(0), null, $language, 0, $name, $coding);
    }

    public static function timecode(int $number, string $coding): self
    {
        return new self($number, TrackKind::Timecode, null, Timeline::plain(0), null, null, 0, '', $coding);
    }

    public function withSound(AudioFormat $audio): self
    {
        $factor = $this->sound === null || $this->sound->rate === 0 ? 1 : max(1, intdiv($audio->rate, $this->sound->rate));

        return new self($this->number, $this->kind, $audio, $this->timeline->times($factor), $this->picture, $this->language,
            $this->codedBytes, $this->name);
    }

    /** With no more bytes than its file has, whatever is announced. */
    public function within(int $fileBytes): self
    {
        return $this->codedBytes <= $fileBytes ? $this : new self($this->number, $this->kind, $this->sound, $this->timeline, $this->picture,
            $this->language, max(0, $fileBytes), $this->name, $this->coding);
    }

    /** Without the samples that its encoder put first, where the container does not tell of them. */
    public function primed(int $samples): self
    {
        return new self($this->number, $this->kind, $this->sound, $this->timeline->primed($samples), $this->picture, $this->language,
            $this->codedBytes, $this->name);
    }

    /** Length in seconds, for people; exact counts are in the timeline. */
    public function seconds(): float
    {
        return $this->sound === null ? ($this->picture === null ? 0.0 : $this->picture->seconds)
            : $this->timeline->samples() / max(1, $this->sound->rate);
    }

    /** The codec's name for programs; of text how its container names it. */
    public function codecName(): string
    {
        return $this->sound->codec->value ?? $this->picture->codec->value ?? ($this->coding === '' ? 'text' : $this->coding);
    }

    /** Bit rate of its packets, in 1000 bits a second; 0 where it is not known. */
    public function kbps(): float
    {
        return $this->seconds() > 0 ? round($this->codedBytes / $this->seconds() / 125, 1) : 0.0;
    }
}
