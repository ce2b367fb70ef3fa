<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Flac;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\Stretch;
use Octavox\Core\Container\BareSource;
use Octavox\Core\Container\BrokenStructure;
use Octavox\Core\Container\OneTrack;
use Octavox\Core\Media\Diagnostic;
use Octavox\Core\Media\Track;
use Octavox\Core\Tag\Tags;

/** An opened FLAC file. */
final class FlacFile extends OneTrack implements BareSource
{
    /** @param  list<Diagnostic>  $diagnostics */
    public function __construct(ByteSource $bytes, Track $track, private readonly FlacFrames $frames, Tags $tags, array $diagnostics)
    {
        parent::__construct('flac', $bytes, $track, $tags, $diagnostics);
    }

    /** @throws BytesMissing */
    public function bare(): Stretch
    {
        return $this->frames->stretch();
    }

    /**
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function packets(Track $track, int $from, int $until): iterable
    {
        return $this->frames->between($from, $until);
    }
}
