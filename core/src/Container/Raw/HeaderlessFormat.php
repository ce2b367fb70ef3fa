<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Raw;

use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\StatedAs;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Media\SampleKind;
use Octavox\Core\Sound\Layout;

/** What somebody says of a file that has no header: kind, rate and channels, written `pcm16:48000:2`. */
final readonly class HeaderlessFormat implements StatedAs
{
    private const KINDS = ['pcm8', 'pcm8unsigned', 'pcm16', 'pcm16big', 'pcm24', 'pcm24big', 'pcm32', 'pcm32big', 'float32', 'float32big',
        'float64', 'alaw', 'ulaw', 'vox', 'gsm'];

    private function __construct(private string $kind, public int $rate, public int $channels) {}

    /** @throws HeaderlessFormatUnknown */
    public static function parse(string $text): self
    {
        $parts = explode(':', strtolower(trim($text)));
        $rate = isset($parts[1]) ? (int) $parts[1] : 8000;
        $channels = isset($parts[2]) ? (int) $parts[2] : 1;
        $mono = in_array($parts[0], ['vox', 'gsm'], true);
        if (! in_array($parts[0], self::KINDS, true) || $rate < 1000 || $rate > 768_000 || $channels < 1
            || $channels > Layout::MOST_CHANNELS || $mono && $channels !== 1 || count($parts) > 3) {
            throw HeaderlessFormatUnknown::text($text, implode(', ', self::KINDS));
        }

        return new self($parts[0], $rate, $channels);
    }

    /** @throws HeaderlessFormatUnknown */
    public static function parseOptional(?string $text): ?self
    {
        return $text === null ? null : self::parse($text);
    }

    /** The words for a format that such a file can have; null where there are none. */
    public static function of(AudioFormat $audio): ?self
    {
        foreach (self::KINDS as $kind) {
            $one = new self($kind, $audio->rate, $audio->channels());
            $own = $one->audio();
            if ($own->codec === $audio->codec && ($own->pcm === null || $audio->pcm !== null && $own->pcm->equals($audio->pcm))) {
                return $one;
            }
        }

        return null;
    }

    public function audio(): AudioFormat
    {
        $layout = Layout::undeclared($this->channels);
        $pcm = match ($this->kind) {
            'pcm8' => SampleFormat::signed(8),
            'pcm8unsigned' => SampleFormat::unsigned8(),
            'pcm16', 'pcm16big' => SampleFormat::signed(16, $this->kind === 'pcm16big'),
            'pcm24', 'pcm24big' => SampleFormat::signed(24, $this->kind === 'pcm24big'),
            'pcm32', 'pcm32big' => SampleFormat::signed(32, $this->kind === 'pcm32big'),
            'float32', 'float32big' => SampleFormat::float(32, $this->kind === 'float32big'),
            'float64' => SampleFormat::float(64),
            'alaw' => new SampleFormat(SampleKind::ALaw, 8),
            'ulaw' => new SampleFormat(SampleKind::MuLaw, 8),
            default => null,
        };

        return match (true) {
            $pcm !== null => AudioFormat::pcm($pcm, $this->rate, $layout),
            $this->kind === 'vox' => new AudioFormat(Codec::Dialogic, $this->rate, $layout),
            default => new AudioFormat(Codec::Gsm, $this->rate, $layout),
        };
    }

    public function open(ByteSource $bytes): Demuxer
    {
        return RawFile::open($bytes, $this);
    }

    /** Samples of each channel that so many bytes hold. */
    public function frames(int $bytes): int
    {
        [$block, $samples] = $this->block();

        return intdiv($bytes, $block) * $samples;
    }

    /** @return array{int, int} bytes that belong together, and samples of each channel in them */
    public function block(): array
    {
        return match ($this->kind) {
            'vox' => [1, 2],
            'gsm' => [33, 160],
            default => [$this->audio()->frameBytes(), 1],
        };
    }

    public function kind(): string
    {
        return $this->kind;
    }

    /** @return array<string, string> every kind there is, in words */
    public static function kinds(): array
    {
        return array_combine(self::KINDS,
            ['8 bit', '8 bit, unsigned', '16 bit', '16 bit, high byte first', '24 bit', '24 bit, high byte first',
                '32 bit', '32 bit, high byte first', '32-bit float', '32-bit float, high byte first', '64-bit float', 'A-law', 'μ-law',
                'Dialogic ADPCM, 4 bit', 'GSM 06.10']);
    }

    public function label(): string
    {
        return sprintf('%s, %s Hz, %s', self::kinds()[$this->kind], number_format($this->rate), match ($this->channels) {
            1 => 'mono',
            2 => 'stereo',
            default => $this->channels.' channels',
        });
    }

    public function __toString(): string
    {
        return $this->kind.':'.$this->rate.':'.$this->channels;
    }
}
