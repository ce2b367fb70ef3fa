<?php

declare(strict_types=1);

namespace Octavox\Core\Container\MpegAudio;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\FileUnwritable;
use Octavox\Core\Codec\Mp3\FrameHeader;
use Octavox\Core\Codec\Mp3\Mp3Facts;
use Octavox\Core\Container\SoundWriter;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Tag\Id3v2;
use Octavox\Core\Tag\Tags;

/** Writes MP3: the tag, the info header with exact length, delay and padding (none where the delay is not known), the frames. */
final class MpegAudioWriter implements SoundWriter
{
    private readonly int $infoAt;

    private readonly int $infoBytes;

    private int $frames = 0;

    private int $samples = 0;

    private int $bytes = 0;

    private int $kbps = 0;

    private bool $variable = false;

    /** @var list<int> bytes before every so many frames, for the hundred places to seek to */
    private array $places = [];

    /** Frames between two remembered places; doubled when there are too many. */
    private int $between = 1;

    /**
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function __construct(private readonly ByteSink $sink, private readonly AudioFormat $audio, Tags $tags,
        private readonly int $skip, private readonly string $maker)
    {
        $this->sink->write(Id3v2::write($tags));
        $this->infoAt = $this->sink->position();
        $this->infoBytes = $audio->codec === Codec::Mp3 && $skip >= Mp3Facts::DECODER_DELAY
            ? InfoHeader::frameBytes($audio->rate, $audio->channels()) : 0;
        if ($this->infoBytes > 0) {
            $this->sink->needsNoChecksum();
        }
        $this->sink->write(str_repeat("\0", $this->infoBytes));
    }

    /** Size of the file for so many samples at a mean rate. */
    public static function predict(AudioFormat $audio, int $samples, Tags $tags, int $kbps): int
    {
        $length = $audio->rate >= 32000 ? 1152 : 576;
        // 576 samples of delay, 288 and more of padding
        $frames = intdiv($samples + 576 + 288 + $length - 1, $length);

        return strlen(Id3v2::write($tags)) + InfoHeader::frameBytes($audio->rate,
            $audio->channels()) + intdiv($frames * $length * 125 * $kbps, $audio->rate);
    }

    /**
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function write(Packet $packet): void
    {
        if ($this->frames % $this->between === 0) {
            $this->places[] = $this->bytes;
            if (count($this->places) >= 4000) {
                $this->places = array_values(array_filter($this->places, fn (int $index): bool => $index % 2 === 0, ARRAY_FILTER_USE_KEY));
                $this->between *= 2;
            }
        }
        $head = substr($packet->data, 0, 4);
        $kbps = FrameHeader::parse($head)->kbps ?? FrameHeader::free($head, strlen($packet->data))->kbps ?? 0;
        $this->variable = $this->variable || $this->frames > 0 && $kbps !== $this->kbps;
        $this->kbps = $kbps;
        $this->frames++;
        $this->samples += $packet->length;
        $this->bytes += strlen($packet->data);
        $this->sink->write($packet->data);
    }

    /**
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function finish(int $samples, AudioFormat $audio): void
    {
        if ($this->infoBytes > 0) {
            $delay = $this->skip - Mp3Facts::DECODER_DELAY;
            $padding = max(0, $this->samples - $delay - $samples);
            $header = new InfoHeader($this->frames, $this->bytes + $this->infoBytes, $delay, $padding, $this->variable, $this->maker);
            $this->sink->replace($this->infoAt, $header->write(
                $this->audio->rate, $this->audio->channels(), $this->kbps, $this->hundredths(), 0));
        }
    }

    /** @return list<int> */
    private function hundredths(): array
    {
        $total = $this->bytes + $this->infoBytes;
        $result = [];
        for ($part = 0; $part < 100; $part++) {
            $index = intdiv(intdiv($this->frames * $part, 100), $this->between);
            $result[] = min(255, intdiv(256 * ($this->infoBytes + ($this->places[$index] ?? $this->bytes)), max(1, $total)));
        }

        return $result;
    }
}
