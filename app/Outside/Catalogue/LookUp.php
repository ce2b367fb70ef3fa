<?php

declare(strict_types=1);

namespace App\Outside\Catalogue;

use App\Processes\AskedChild;
use App\Sources\Models\Source;
use Octavox\Core\Failure;
use Octavox\Core\Tag\Chapter;

/** What a catalogue says of sources: a disc by its table of contents, any other by its sound, or by words. */
final class LookUp
{
    /** Of an audio disc, IEC 60908: sectors a second, and those before the first track. */
    private const SECTORS = 75;

    private const BEFORE = 150;

    private const SECONDS = 120;

    public function __construct(private readonly Catalogue $catalogue) {}

    /** @param  string  $words  by which it is looked up; empty for its own */
    public function lookUp(Source $source, string $words = ''): LookedUp
    {
        try {
            [$by, $candidates] = match (true) {
                $words !== '' => ['words', $this->catalogue->byWords($words)],
                $source->isSheet() => ['disc', $this->byDisc($source)],
                default => ['sound', $this->bySound($source)],
            };

            return new LookedUp($source, $by, $candidates, '');
        } catch (Failure $failure) {
            return new LookedUp($source, '', [], $failure->getMessage());
        }
    }

    /**
     * @return list<Candidate>
     *
     * @throws Failure
     */
    private function byDisc(Source $source): array
    {
        $reading = $source->facts();
        $tracks = array_values(array_filter($reading->chapters ?? [], fn (Chapter $one): bool => $one->disc?->number !== 0));
        $sector = fn (float $seconds): int => self::BEFORE + (int) round($seconds * self::SECTORS);

        return $reading === null || $tracks === [] ? []
            : $this->catalogue->byDisc(array_map(fn (Chapter $one): int => $sector($one->starts),
                $tracks), $sector($reading->seconds));
    }

    /**
     * @return list<Candidate>
     *
     * @throws Failure
     */
    private function bySound(Source $source): array
    {
        $answer = (new AskedChild('fingerprint', self::SECONDS))
            ->answer(['path' => $source->path, 'stated' => $source->stated], $source->path,
                "source-$source->id.log");
        $fingerprint = is_string($answer['fingerprint'] ?? null) ? (string) base64_decode($answer['fingerprint'], true) : '';

        return $fingerprint === '' ? [] : $this->catalogue->bySound($fingerprint);
    }
}
