<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Adts;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Codec\Aac\AdtsFraming;
use Octavox\Core\Codec\Packet;
use Octavox\Core\Codec\SoundForm;
use Octavox\Core\Container\BrokenStructure;
use Octavox\Core\Container\SoundWriter;
use Octavox\Core\Tag\Id3v2;
use Octavox\Core\Tag\Tags;

/** Writes access units, each after its header. */
final class AdtsWriter implements SoundWriter
{
    public function __construct(private readonly ByteSink $sink, private readonly SoundForm $form, Tags $tags)
    {
        $this->sink->write(Id3v2::write($tags));
    }

    public function write(Packet $packet): void
    {
        $this->sink->write(AdtsFraming::header($this->form->config, strlen($packet->data)) ?? throw BrokenStructure::at('ADTS', $packet->start, 'an access unit is too long for its header'));
        $this->sink->write($packet->data);
    }

    public function finish(int $samples, SoundForm $form): void
    {
    }
}
