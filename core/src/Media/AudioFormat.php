<?php

declare(strict_types=1);

namespace Octavox\Core\Media;

use Octavox\Core\Json\Fields;
use Octavox\Core\Sound\Channel;
use Octavox\Core\Sound\Layout;

/** What a decoder must know of a sound track, and what an encoder tells of its packets. */
final readonly class AudioFormat
{
    /**
     * @param  int  $rate  Hz, of the decoded sound
     * @param  ?SampleFormat  $pcm  only with {@see Codec::Pcm}
     * @param  string  $config  the codec's own set-up bytes, such as the AudioSpecificConfig of AAC
     * @param  int  $frameLength  samples of one packet, 0 where it varies or where one sample is a packet
     * @param  string  $variant  exact name where the codec has several, such as HE-AAC
     * @param  int  $bitDepth  bits of one sample of a codec that keeps every bit, such as FLAC; else 0
     * @param  bool  $isOutside  whether a program of the machine's owner decodes it, and nothing here
     */
    public function __construct(
        public Codec $codec,
        public int $rate,
        public Layout $layout,
        public ?SampleFormat $pcm = null,
        public string $config = '',
        public int $frameLength = 0,
        public string $variant = '',
        public int $bitDepth = 0,
        public bool $isOutside = false,
    ) {}

    public static function pcm(SampleFormat $pcm, int $rate, Layout $layout): self
    {
        return new self(Codec::Pcm, $rate, $layout, $pcm);
    }

    public function channels(): int
    {
        return $this->layout->count();
    }

    /** Bits of one sample where the codec keeps a fixed number, else 0. */
    public function bits(): int
    {
        return $this->pcm === null ? $this->bitDepth : $this->pcm->bits;
    }

    /** Bytes of one frame of PCM over all channels. */
    public function frameBytes(): int
    {
        return $this->pcm === null ? 0 : $this->pcm->bytes() * $this->channels();
    }

    public function withDecoded(int $rate, Layout $layout, int $frameLength, string $variant): self
    {
        return new self($this->codec, $rate, $layout, $this->pcm, $this->config, $frameLength, $variant, $this->bitDepth,
            $this->isOutside);
    }

    public function withConfig(string $config): self
    {
        return new self($this->codec, $this->rate, $this->layout, $this->pcm, $config, $this->frameLength, $this->variant, $this->bitDepth,
            $this->isOutside);
    }

    public function withBitDepth(int $bitDepth): self
    {
        return new self($this->codec, $this->rate, $this->layout, $this->pcm, $this->config, $this->frameLength, $this->variant, $bitDepth,
            $this->isOutside);
    }

    public function withLayout(Layout $layout): self
    {
        return new self($this->codec, $this->rate, $layout, $this->pcm, $this->config, $this->frameLength, $this->variant, $this->bitDepth,
            $this->isOutside);
    }

    public function outside(): self
    {
        return new self($this->codec, $this->rate, $this->layout, $this->pcm, $this->config, $this->frameLength, $this->variant,
            $this->bitDepth, true);
    }

    /** Whether it is protected against copying: readers say so in place of what it is. */
    public function isProtected(): bool
    {
        return str_contains($this->variant, 'protected');
    }

    /** What its codec is called where programs that decode it are named: of one that has no name here, what its container calls it. */
    public function codecKey(): string
    {
        return $this->codec === Codec::Unknown ? trim(explode(',', mb_strtolower($this->variant))[0], '“” ') : $this->codec->value;
    }

    /** @return array<string, mixed> without the codec's own set-up bytes */
    public function toArray(): array
    {
        return [
            'codec' => $this->codec->value,
            'pcm' => $this->pcm === null ? null
                : ['kind' => $this->pcm->kind->value, 'bits' => $this->pcm->bits, 'big_endian' => $this->pcm->bigEndian],
            'rate' => $this->rate,
            'channels' => array_map(fn (Channel $channel): int => $channel->value, $this->layout->channels),
            'frame_length' => $this->frameLength,
            'bit_depth' => $this->bitDepth,
            'variant' => $this->variant,
        ] + ($this->isOutside ? ['outside' => true] : []);
    }

    /** @throws \UnexpectedValueException where it is not what {@see self::toArray()} gave */
    public static function fromFields(Fields $fields): self
    {
        $channels = array_map(
            fn (int $value): Channel => Channel::tryFrom($value)
                ?? throw new \UnexpectedValueException('A format names a channel that does not exist.'),
            $fields->numbers('channels'),
        );
        $first = array_shift($channels) ?? throw new \UnexpectedValueException('A format names no channel.');
        $pcm = $fields->optional('pcm');
        $codec = Codec::tryFrom($fields->text('codec'))
            ?? throw new \UnexpectedValueException('A format names a codec that does not exist.');
        $kind = $pcm === null ? null : SampleKind::tryFrom($pcm->text('kind'));

        return new self(
            $codec,
            $fields->number('rate'),
            Layout::of($first, ...$channels),
            $pcm === null || $kind === null ? null : new SampleFormat($kind, $pcm->number('bits'), $pcm->bool('big_endian')),
            '',
            $fields->number('frame_length'),
            $fields->text('variant'),
            $fields->number('bit_depth'),
            ($fields->all()['outside'] ?? false) === true,
        );
    }
}
