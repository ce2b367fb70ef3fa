<?php

declare(strict_types=1);

namespace Octavox\Core\Container;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Codec\Codec;
use Octavox\Core\Codec\EncoderSetting;
use Octavox\Core\Codec\SoundForm;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\Tags;

/** What files of a codec have in common that is not encoded here: its frames are copied from where they are, one after another. */
abstract class KeptOutput implements OutputFormat
{
    /** @return non-empty-list<Codec> */
    abstract protected function codecs(): array;

    abstract protected function suits(): string;

    public function abilities(): Abilities
    {
        return new Abilities(Fidelity::Lossy, $this->suits(), [], [], Layout::MOST_CHANNELS, [], false, false);
    }

    public function form(SoundForm $source, int $rate, Layout $layout, ?int $bits): SoundForm
    {
        return in_array($source->codec, $this->codecs(), true) ? $source : new SoundForm($this->codecs()[0], $rate, $layout);
    }

    public function setting(EncoderSetting $wished, SoundForm $form): EncoderSetting
    {
        return EncoderSetting::none();
    }

    public function carries(SoundForm $source): bool
    {
        return in_array($source->codec, $this->codecs(), true);
    }

    public function presented(SoundForm $form, int $samples): int
    {
        return $samples;
    }

    /** Frames alone cannot say what to leave out. */
    public function presentedKept(SoundForm $form, int $coded, int $skip, int $samples): int
    {
        return $coded;
    }

    public function predict(SoundForm $form, EncoderSetting $setting, int $samples, Tags $tags): int
    {
        return 0;
    }

    public function writer(ByteSink $sink, SoundForm $form, Tags $tags, int $samples, int $skip, string $maker): SoundWriter
    {
        return new Headed($sink, $this->head($form));
    }

    /** Bytes before the first frame. */
    protected function head(SoundForm $form): string
    {
        return '';
    }
}
