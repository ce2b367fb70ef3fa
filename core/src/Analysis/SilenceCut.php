<?php

declare(strict_types=1);

namespace Octavox\Core\Analysis;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\MemoryBytes;
use Octavox\Core\Bytes\MemorySink;
use Octavox\Core\Failure;
use Octavox\Core\Media\Track;
use Octavox\Core\Reading\OpenedSource;
use Octavox\Core\Sound\InvalidTime;

/** The pieces that are left when silences are left out: `silences`, with a level in dBFS and a least length in seconds behind colons. */
final readonly class SilenceCut
{
    private const USUAL_LEVEL = -45.0;

    private const USUAL_LEAST = 0.7;

    private function __construct(private float $level, private float $least) {}

    /** @throws InvalidTime where it begins with the word and cannot be read; null where it does not */
    public static function parse(string $text): ?self
    {
        if (! str_starts_with($text, 'silences')) {
            return null;
        }
        if (preg_match('/^silences(?::(-\d{1,2}(?:\.\d+)?))?(?::(\d{1,4}(?:\.\d+)?))?$/', $text, $parts) !== 1) {
            throw InvalidTime::silences($text);
        }

        return new self((float) (($parts[1] ?? '') === '' ? self::USUAL_LEVEL : $parts[1]), (float) ($parts[2] ?? self::USUAL_LEAST));
    }

    /**
     * Analyses the track.
     *
     * @return string pieces as a spec writes them
     *
     * @throws Failure where it cannot be decoded or nothing is left
     */
    public function find(OpenedSource $source, Track $track): string
    {
        $sink = new MemorySink;
        Analyzer::to($source, $track, $sink);
        $waveform = Waveform::open(new MemoryBytes($sink->bytes()));

        return $waveform === null ? throw InvalidTime::noSound() : $this->within($waveform);
    }

    /**
     * @return string pieces as a spec writes them
     *
     * @throws InvalidTime where nothing is left
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function within(Waveform $waveform): string
    {
        $samples = $waveform->layout->samples;
        $silences = $waveform->silences(10 ** ($this->level / 20), (int) ($this->least * $waveform->layout->rate));
        $pieces = [];
        $at = 0;
        foreach ([...$silences, [$samples, $samples]] as [$from, $until]) {
            if ($from > $at) {
                $pieces[] = sprintf('%d#-%d#', $at, $from);
            }
            $at = $until;
        }

        return $pieces === [] ? throw InvalidTime::noSound() : implode(',', $pieces);
    }
}
