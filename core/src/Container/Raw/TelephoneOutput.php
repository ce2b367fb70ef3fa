<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Raw;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\FileUnwritable;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Capabilities;
use Octavox\Core\Container\Fidelity;
use Octavox\Core\Container\Headed;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\SoundWriter;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\TagRoom;
use Octavox\Core\Tag\Tags;

/** 4-bit telephone ADPCM without a header. */
final class TelephoneOutput implements OutputFormat
{
    public function name(): string
    {
        return 'vox';
    }

    public function container(): string
    {
        return $this->name();
    }

    public function label(): string
    {
        return '4-bit telephone ADPCM';
    }

    public function extension(): string
    {
        return 'vox';
    }

    public function capabilities(): Capabilities
    {
        return new Capabilities(Fidelity::Lossy, 'for telephone switches and voice-mail', [], [6000, 8000], 1, headerless: true,
            tags: TagRoom::nothing());
    }

    public function audio(AudioFormat $source, int $rate, Layout $layout, ?int $bits): AudioFormat
    {
        return new AudioFormat(Codec::Dialogic, $rate, $layout);
    }

    public function rateControl(RateControl $asked, AudioFormat $audio): RateControl
    {
        return RateControl::none();
    }

    public function carries(AudioFormat $source): bool
    {
        return $source->codec === Codec::Dialogic;
    }

    /** Two samples share a byte. */
    public function presented(AudioFormat $audio, int $samples): int
    {
        return $samples + $samples % 2;
    }

    public function presentedKept(AudioFormat $audio, int $coded, int $skip, int $samples): int
    {
        return $coded;
    }

    public function predict(AudioFormat $audio, RateControl $rateControl, int $samples, Tags $tags): int
    {
        return intdiv($samples + 1, 2);
    }

    /**
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function writer(ByteSink $sink, AudioFormat $audio, Tags $tags, int $samples, int $skip, string $maker): SoundWriter
    {
        return new Headed($sink, '');
    }
}
