<?php

declare(strict_types=1);

namespace Octavox\Core\Decode;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\OutsideDecoders;
use Octavox\Core\Codec\Pcm\PcmDecoder;
use Octavox\Core\Container\BrokenStructure;
use Octavox\Core\Container\Wave\FormatChunk;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\Track;
use Octavox\Core\Parallel\OutsideProgram;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\Mix;
use Octavox\Core\Sound\Mixer;

/** The decoded sound of a track that a program of the owner decodes: what it writes as WAV, held against what the file announces. */
final class OutsideSound
{
    /** Bytes before the first sample, at the most. */
    private const MOST_HEAD = 65_536;

    private const AT_ONCE = 65_536;

    /** Seconds by which the length may be another one. */
    private const LENGTH_OFF = 0.25;

    private ?OutsideProgram $program = null;

    private AudioFormat $given;

    private string $held = '';

    /** The next sample that the program gives. */
    private int $at = 0;

    public function __construct(private readonly string $path, private readonly Track $track, private readonly AudioFormat $audio) {}

    /**
     * @param  int  $from  sample of the coded sound
     * @return iterable<array{int, Block}> blocks with the place of their first sample
     *
     * @throws Failure
     */
    public function placed(int $from, int $until): iterable
    {
        if ($this->program === null || $from < $this->at) {
            $this->begin();
        }
        $frame = $this->given->frameBytes();
        $decoder = new PcmDecoder($this->given);
        $order = $this->given->layout->equals($this->audio->layout) ? null
            : new Mixer(Mix::between($this->given->layout, $this->audio->layout));
        while ($this->at < $until) {
            $more = $this->program?->read(self::AT_ONCE) ?? '';
            $this->held .= $more;
            $whole = strlen($this->held) - strlen($this->held) % $frame;
            if ($more === '' && $whole === 0) {
                $this->finish();

                return;
            }
            $data = substr($this->held, 0, $whole);
            $this->held = substr($this->held, $whole);
            $frames = intdiv($whole, $frame);
            [$place, $this->at] = [$this->at, $this->at + $frames];
            if ($this->at > $from && $frames > 0) {
                $block = $decoder->decode(new Packet($data, $place, $frames));
                foreach ($order === null ? [$block] : $order->take($block) as $part) {
                    yield [$place, $part];
                }
            }
        }
    }

    /**
     * Told when all up to a sample was taken: at the end nothing may follow.
     *
     * @throws OutsideDecoderFailed
     */
    public function settle(int $until): void
    {
        if ($until >= $this->track->timeline->coded && $this->program !== null) {
            $this->requireEnd();
        }
    }

    /**
     * @throws OutsideDecoderFailed
     * @throws BytesMissing
     */
    private function begin(): void
    {
        $words = OutsideDecoders::command($this->audio) ?? throw OutsideDecoderFailed::absent($this->path, CodecModules::describe($this
            ->audio));
        // A path that begins with a dash would be an option, and a relative one means something else in another folder.
        $fields = ['{path}' => (string) (realpath($this->path) ?: $this->path), '{track}' => (string) $this->track->number];
        $this->program = OutsideProgram::begin(array_map(fn (string $word): string => strtr($word, $fields), $words))
            ?? throw OutsideDecoderFailed::absent($this->path, CodecModules::describe($this->audio));
        $this->at = 0;
        $this->held = '';
        $this->given = $this->head();
        if ($this->given->rate !== $this->audio->rate) {
            throw OutsideDecoderFailed::differing($this->path, CodecModules::describe($this->audio), sprintf('%s Hz instead of %s',
                number_format($this->given->rate), number_format($this->audio->rate)));
        }
        if ($this->given->channels() !== $this->audio->channels()) {
            throw OutsideDecoderFailed::differing($this->path, CodecModules::describe($this->audio), sprintf('%d channels instead of %d',
                $this->given->channels(), $this->audio->channels()));
        }
    }

    /**
     * The head of the WAV stream; its lengths are not believed.
     *
     * @throws OutsideDecoderFailed
     * @throws BytesMissing
     */
    private function head(): AudioFormat
    {
        $this->fill(12);
        $isWave = in_array(substr($this->held, 0, 4), ['RIFF', 'RF64'], true) && substr($this->held, 8, 4) === 'WAVE';
        $format = null;
        for ($at = 12; $isWave && $at < self::MOST_HEAD; $at += 8 + $length + $length % 2) {
            $this->fill($at + 8);
            if (strlen($this->held) < $at + 8) {
                break;
            }
            $name = substr($this->held, $at, 4);
            $length = (int) (unpack('V', $this->held, $at + 4)[1] ?? 0);
            if ($name === 'data') {
                $this->held = substr($this->held, $at + 8);
                if ($format?->pcm === null) {
                    break;
                }

                return $format;
            }
            $this->fill(min(self::MOST_HEAD, $at + 8 + $length));
            if ($name === 'fmt ') {
                try {
                    $format = FormatChunk::parse(substr($this->held, $at + 8, min(64, $length)), $this->path, $at)->audio;
                } catch (BrokenStructure) {
                    break;
                }
            }
        }
        if ($this->held === '') {
            $this->require();
        }

        throw OutsideDecoderFailed::differing($this->path, CodecModules::describe($this->audio), 'no WAV with plain samples');
    }

    private function fill(int $bytes): void
    {
        while (strlen($this->held) < $bytes && ($more = $this->program?->read(self::AT_ONCE) ?? '') !== '') {
            $this->held .= $more;
        }
    }

    /**
     * It has said all that it says: as it ought to have ended?
     *
     * @throws OutsideDecoderFailed
     */
    private function finish(): void
    {
        $this->require();
        $missing = $this->track->timeline->coded - $this->at;
        if ($missing > self::LENGTH_OFF * $this->audio->rate) {
            throw OutsideDecoderFailed::differing($this->path, CodecModules::describe($this->audio), sprintf('%.2f s instead of %.2f',
                $this->at / $this->audio->rate, $this->track->timeline->coded / $this->audio->rate));
        }
    }

    /** @throws OutsideDecoderFailed where it goes on and on, or complains */
    private function requireEnd(): void
    {
        $most = (int) (self::LENGTH_OFF * $this->audio->rate) * $this->given->frameBytes();
        for ($more = strlen($this->held); $more <= $most; $more += strlen($bytes)) {
            $bytes = $this->program?->read(self::AT_ONCE) ?? '';
            if ($bytes === '') {
                $this->require();

                return;
            }
        }
        throw OutsideDecoderFailed::differing($this->path, CodecModules::describe($this->audio),
            sprintf('more than the %.2f s that there are',
                $this->track->timeline->coded / $this->audio->rate));
    }

    /** @throws OutsideDecoderFailed where it was silent, or ended with a complaint */
    private function require(): void
    {
        if ($this->program?->wasSilent() === true) {
            throw OutsideDecoderFailed::silent($this->path, CodecModules::describe($this->audio));
        }
        $status = $this->program?->status() ?? 0;
        if ($status !== 0) {
            throw OutsideDecoderFailed::ended($this->path, CodecModules::describe($this->audio), $status,
                (string) $this->program?->complaint());
        }
    }
}
