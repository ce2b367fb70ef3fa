<?php

declare(strict_types=1);

namespace App\Outside\Catalogue;

use App\Files\KeepPicture;
use App\Sources\Models\Source;
use Octavox\Core\Failure;
use Octavox\Core\Tag\Cover;

/** Notes beside a source what a catalogue knows of it, once somebody has accepted that; the source itself is never changed. */
final class AcceptCandidate
{
    public function __construct(private readonly Catalogue $catalogue, private readonly KeepPicture $pictures) {}

    /** @return string what could not be taken, in one sentence; empty where all was */
    public function accept(Source $source, Candidate $candidate, bool $withCover): string
    {
        $says = '';
        $cover = '';
        if ($withCover && $candidate->cover !== '') {
            try {
                $cover = $this->picture($candidate->cover);
            } catch (Failure $failure) {
                $says = 'The cover was not taken: '.$failure->getMessage();
            }
        }
        $source->update(['catalogue' => ['fields' => $candidate->fields, 'tracks' => $candidate->tracks, 'cover' => $cover]]);

        return $says;
    }

    public function forget(Source $source): void
    {
        $source->update(['catalogue' => null]);
    }

    /**
     * @return string the name by which {@see \App\Files\Pictures} finds it
     *
     * @throws Failure
     */
    private function picture(string $name): string
    {
        $bytes = $this->catalogue->cover($name);
        $path = (string) tempnam(sys_get_temp_dir(), 'octavox-cover');
        try {
            file_put_contents($path, $bytes);

            return $this->pictures->keep($path, Cover::recognise($bytes) === null ? max(KeepPicture::SIDES) : 0);
        } finally {
            @unlink($path);
        }
    }
}
