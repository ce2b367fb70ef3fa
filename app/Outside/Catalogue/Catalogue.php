<?php

declare(strict_types=1);

namespace App\Outside\Catalogue;

/** Somebody who knows albums and recordings. */
interface Catalogue
{
    /**
     * @param  list<int>  $offsets  sectors at which the tracks of a disc begin, 75 a second, 150 before the first
     * @param  int  $leadout  sector behind the last
     * @return list<Candidate> the most likely first
     *
     * @throws CatalogueFailed
     */
    public function byDisc(array $offsets, int $leadout): array;

    /**
     * @param  string  $fingerprint  numbers of 32 bits, most significant byte first
     * @return list<Candidate> the most likely first
     *
     * @throws CatalogueFailed
     */
    public function bySound(string $fingerprint): array;

    /**
     * @return list<Candidate> the most likely first
     *
     * @throws CatalogueFailed
     */
    public function byWords(string $words): array;

    /**
     * The bytes of a cover, whatever they are.
     *
     * @throws CatalogueFailed
     */
    public function cover(string $name): string;
}
