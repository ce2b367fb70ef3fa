<?php

declare(strict_types=1);

namespace Octavox\Core\Make\Pipeline;

use Octavox\Core\Bytes\FileSink;
use Octavox\Core\Codec\StreamSplicer;
use Octavox\Core\Failure;
use Octavox\Core\Make\SourceChanged;
use Octavox\Core\Make\VerifyingDecoder;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Packet;
use Octavox\Core\Reading\Opener;
use Octavox\Core\Sound\BlockSplitter;
use Octavox\Core\Sound\LevelMeter;

/** The other end of {@see ParallelTail}: makes the later part of a sound, in a process of its own, and says what it is. */
final readonly class TailMaker
{
    /**
     * @param  int  $begins  first sample of the part
     * @param  int  $lead  samples before it that are heard
     * @param  float  $gain  factor that reaches the level that is asked for
     */
    public function __construct(private SoundInput $known, private StreamSplicer $splicer, private int $begins, private int $lead,
        private float $gain) {}

    /**
     * @param  ?int  $place  where the part begins in that file; null where the file holds nothing else
     * @return array<string, mixed> what {@see ParallelTail} reads
     *
     * @throws Failure
     */
    public function make(string $path, ?int $place): array
    {
        $plan = $this->known->plan;
        $source = Opener::open($this->known->path(), $this->known->source->stated);
        if ($source->media->source()->size() !== $this->known->source->media->source()->size()) {
            throw SourceChanged::track($this->known->path());
        }
        $filters = new Filters(SoundInput::of($source, $plan), $this->gain);
        $encoder = $this->splicer->encoder();
        $decoder = $plan->audio->codec === Codec::Pcm ? null
            : VerifyingDecoder::start($encoder->audio(), 0, $plan->samples - $this->begins);
        $sink = $place === null ? FileSink::create($path) : FileSink::from($path, $place);
        $sink->needsNoChecksum();
        $meter = new LevelMeter;
        $incoming = ! $this->splicer->hearsAll() && $filters->changeLevel() ? new LevelMeter : null;
        [$before, $samples, $hash] = [hash_init('xxh128'), hash_init('xxh128'), hash_init('xxh128')];
        $write = function (iterable $made) use ($sink, $decoder, $hash): void {
            foreach ($made as $packet) {
                $packet = $this->splicer->packet($packet, $this->begins);
                $sink->write($packet->data);
                // Whoever decodes the part knows nothing of what is before it.
                $decoder?->take(new Packet($packet->data, $packet->start - $this->begins, $packet->length, $packet->config));
                hash_update($hash, $packet->data);
            }
        };
        $done = -$this->lead;
        $half = intdiv($this->lead, 2);
        foreach (BlockSplitter::at($filters->blocks($this->begins - $this->lead, $incoming, $this->lead),
            [$this->lead - $half, $this->lead]) as $block) {
            if ($done >= 0) {
                // What the first process hears too it measures itself.
                $this->splicer->hearsAll() ? hash_update($samples, $block->bytes()) : $meter->measure($block);
                $write($encoder->encode($block));
            } elseif ($done >= -$half) {
                hash_update($before, $block->bytes());
            }
            $done += $block->frames;
        }
        $write($encoder->finish());
        $sink->close();

        return [
            'damage' => $source->damage->places(), 'digest' => $decoder?->finish($encoder->audio(), fn () => null)?->toArray(),
            'lead' => hash_final($before), 'samples' => hash_final($samples), 'packets' => hash_final($hash), 'frames' => $done,
            'peak' => $meter->level()->peak, 'rms' => $meter->level()->rms, 'in_peak' => $incoming?->level()->peak ?? 0.0,
            'in_rms' => $incoming?->level()->rms ?? 0.0,
            'config' => bin2hex($this->splicer->later($encoder->audio())->config),
        ];
    }
}
