<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Film;

use Octavox\Core\Codec\SoundForm;

/** One sound track of a film that is being written. */
final readonly class FilmSound
{
    /**
     * @param  int  $late  samples after the picture at which it begins
     * @param  int  $skip  decoded samples that are not presented before
     * @param  int  $samples  that are presented
     * @param  string  $first  the first packet, of which some descriptions repeat facts
     */
    public function __construct(public SoundForm $form, public int $late, public int $skip, public int $samples, public ?string $language, public string $name, public string $first)
    {
    }
}
