<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Bytes\FileSink;
use Octavox\Core\Container\Wave\WaveWriter;
use Octavox\Core\Failure;
use Octavox\Core\Reading\OpenedSource;
use Octavox\Core\Reading\Opener;

/** Writes the files into which a recorder has cut one recording as one, sample behind sample, and reads it again. */
final class JoinedRecording
{
    /**
     * @param  non-empty-list<string>  $paths  of files that hold the same kind of samples
     * @return int samples of each channel
     *
     * @throws Failure
     */
    public static function write(array $paths, string $to): int
    {
        $sources = array_map(fn (string $path): OpenedSource => Opener::open($path), $paths);
        $audio = $sources[0]->sound()[0]->sound ?? throw VerificationFailed::because($paths[0], 'there is no sound in it');
        $samples = array_sum(array_map(fn (OpenedSource $source): int => $source->sound()[0]->timeline->samples(), $sources));
        $sink = FileSink::create($to);
        $writer = new WaveWriter($sink, $audio, $sources[0]->media->tags(), $samples);
        $sum = hash_init('xxh128');
        foreach ($sources as $source) {
            foreach ($source->media->packets($source->sound()[0], 0, $source->sound()[0]->timeline->samples()) as $packet) {
                hash_update($sum, $packet->data);
                $writer->write($packet);
            }
        }
        $writer->finish($samples, $audio);
        $sink->close();
        $again = hash_init('xxh128');
        $joined = Opener::open($to);
        foreach ($joined->media->packets($joined->sound()[0], 0, $joined->sound()[0]->timeline->samples()) as $packet) {
            hash_update($again, $packet->data);
        }
        if (hash_final($again) !== hash_final($sum)) {
            throw VerificationFailed::because($to, 'the joined recording does not read back as its files');
        }

        return $samples;
    }
}
