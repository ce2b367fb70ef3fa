<?php

declare(strict_types=1);

namespace Octavox\Core\Container\WavPack;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\Window;
use Octavox\Core\Codec\WavPack\BlockHeader;
use Octavox\Core\Container\BrokenStructure;
use Octavox\Core\Container\Demuxer;
use Octavox\Core\Container\Format;
use Octavox\Core\Media\Diagnostic;
use Octavox\Core\Media\Timeline;
use Octavox\Core\Media\Track;
use Octavox\Core\Tag\ApeTag;
use Octavox\Core\Tag\Tags;

/** WavPack in its own file: WavPack 4 & 5 Binary File / Block Format. */
final class WavPackFormat implements Format
{
    /**
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function recognises(ByteSource $bytes): bool
    {
        return $bytes->size() >= BlockHeader::BYTES && BlockHeader::parse($bytes->read(0, BlockHeader::BYTES)) !== null;
    }

    /**
     * @throws BrokenStructure
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function open(ByteSource $bytes): Demuxer
    {
        $size = $bytes->size();
        $tag = ApeTag::before($bytes, $size);
        $tags = $tag === 0 ? Tags::none() : ApeTag::read($bytes->read($size - $tag, $tag));
        $end = $size - $tag;
        $window = new Window($bytes, $end);
        $audio = null;
        $samples = 0;
        $total = null;
        $diagnostics = [];
        $whole = 0;
        foreach (WavPackFile::walk($window, 0, $end) as [$at, $length, $header]) {
            if ($audio === null && $header->samples > 0) {
                $audio = $header->audio($bytes->read($at, $length));
                $total = $header->total;
            }
            if ($header->samples > 0 && $header->start < $samples) {
                // The count begins anew: what follows is another recording.
                $diagnostics[] = Diagnostic::anotherRecording($at);
                $end = $at;
                break;
            }
            $samples = max($samples, $header->start + $header->samples);
            $whole = $at + $length;
        }
        if ($audio === null) {
            throw BrokenStructure::at($bytes->name(), 0, 'no whole block of sound is in it');
        }
        if ($total !== null && $total > $samples) {
            $diagnostics[] = Diagnostic::cutShort($total, $samples);
        } elseif ($diagnostics === [] && $end - $whole > BlockHeader::BYTES) {
            $diagnostics[] = Diagnostic::otherContent($end - $whole, $whole);
        }

        return new WavPackFile($bytes, Track::sound(1, $audio, Timeline::plain($samples), $end), $end, $tags, $diagnostics);
    }
}
