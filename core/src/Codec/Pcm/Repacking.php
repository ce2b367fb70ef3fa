<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Pcm;

use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\CodecNotDecodable;
use Octavox\Core\Codec\Native\SampleFile;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Media\SampleKind;
use Octavox\Core\Sound\Native\LibraryMissing;

/** Whole numbers from one bit depth and byte order to another without passing through floating point, which has only 24 bits. */
final class Repacking
{
    private readonly SampleFile $reader;

    private readonly SampleFile $writer;

    private readonly int $width;

    /**
     * @throws CodecNotDecodable
     * @throws LibraryMissing
     */
    public function __construct(AudioFormat $from, AudioFormat $to)
    {
        $this->reader = SampleFile::reader(SampleFileFormat::code($from
            ->pcm ?? throw CodecNotDecodable::named(CodecModules::describe($from))),
            $from->channels());
        $this->writer = SampleFile::writer(SampleFileFormat::code($to->pcm ?? throw CodecNotDecodable::named(CodecModules::describe($to))),
            $to->channels());
        $this->width = $from->pcm->bytes();
    }

    /** Whether nothing else than the packing changes and floating point would lose bits. */
    public static function isNeeded(AudioFormat $from, AudioFormat $to): bool
    {
        $whole = fn (?SampleFormat $pcm): bool => $pcm !== null && in_array($pcm->kind, [SampleKind::Signed, SampleKind::Unsigned], true);

        return $whole($from->pcm) && $whole($to->pcm) && $from->rate === $to->rate
            && $from->layout->placesOf($to->layout) === array_keys($to->layout->channels)
            && $from->bits() > 24 && $to->bits() >= $from->bits();
    }

    public function repack(string $data): string
    {
        $samples = intdiv(strlen($data), $this->width);

        return $this->writer->write32($this->reader->readNumbers($data, $samples), $samples);
    }
}
