<?php

declare(strict_types=1);

namespace Octavox\Core\Container\WavPack;

use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\Window;
use Octavox\Core\Codec\WavPack\BlockHeader;
use Octavox\Core\Container\BrokenStructure;
use Octavox\Core\Container\Format;
use Octavox\Core\Container\Media;
use Octavox\Core\Container\Remark;
use Octavox\Core\Container\RemarkWeight;
use Octavox\Core\Container\Timeline;
use Octavox\Core\Container\Track;
use Octavox\Core\Tag\ApeTag;
use Octavox\Core\Tag\Tags;

/** WavPack in its own file: WavPack 4 & 5 Binary File / Block Format. */
final class WavPackFormat implements Format
{
    public function recognises(ByteSource $bytes): bool
    {
        return $bytes->size() >= BlockHeader::BYTES && BlockHeader::parse($bytes->read(0, BlockHeader::BYTES)) !== null;
    }

    public function open(ByteSource $bytes): Media
    {
        $size = $bytes->size();
        $tag = $size < ApeTag::FOOTER ? 0 : min($size, ApeTag::length($bytes->read($size - ApeTag::FOOTER, ApeTag::FOOTER)));
        $tags = $tag === 0 ? Tags::none() : ApeTag::read($bytes->read($size - $tag, $tag));
        $end = $size - $tag;
        $window = new Window($bytes, $end);
        $form = null;
        $samples = 0;
        $total = null;
        foreach (WavPackFile::walk($window, 0, $end) as [$at, $length, $header]) {
            if ($form === null && $header->samples > 0) {
                $form = $header->form($bytes->read($at, $length));
                $total = $header->total;
            }
            $samples = max($samples, $header->start + $header->samples);
        }
        if ($form === null) {
            throw BrokenStructure::at($bytes->name(), 0, 'no whole block of sound is in it');
        }
        $remarks = $total !== null && $total > $samples ? [new Remark('cut-short', RemarkWeight::Warn, sprintf('The file announces %s samples but only %s are there; what is there can be used.', number_format($total), number_format($samples)), 'Copy it again if the original is longer, or make what is there.')] : [];

        return new WavPackFile($bytes, Track::sound(1, $form, Timeline::plain($samples), $end), $end, $tags, $remarks);
    }
}
