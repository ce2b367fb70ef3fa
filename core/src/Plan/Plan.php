<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Codec\Codec;
use Octavox\Core\Codec\EncoderSetting;
use Octavox\Core\Codec\PcmForm;
use Octavox\Core\Codec\SampleKind;
use Octavox\Core\Codec\SoundForm;
use Octavox\Core\Container\Raw\RawForm;
use Octavox\Core\Json\Fields;
use Octavox\Core\Sound\Channel;
use Octavox\Core\Sound\Layout;
use Octavox\Core\Tag\Tags;

/** Exactly what will be made: a plain value that prints as JSON and can be carried out on any machine that has the source. */
final readonly class Plan
{
    /**
     * @param  int  $sourceBytes  size when planned; a source that changed since is refused
     * @param  int  $moment  samples of the source's time at which the result begins: where the picture starts
     * @param  string  $format  name of the output format
     * @param  int  $samples  the result's length, exact
     * @param  list<string>  $steps  what is done to the sound, in words, in order
     * @param  string  $name  with extension
     * @param  ?RawForm  $stated  what the source holds, where it has no header
     */
    public function __construct(
        public string $source,
        public int $sourceBytes,
        public int $track,
        public int $moment,
        public Action $action,
        public string $format,
        public SoundForm $form,
        public EncoderSetting $setting,
        public int $samples,
        public int $predictedBytes,
        public Tags $tags,
        public string $folder,
        public string $name,
        public Existing $existing,
        public array $steps,
        public bool $dither,
        public ?RawForm $stated = null,
    ) {
    }

    public function path(): string
    {
        return rtrim($this->folder, '/').'/'.$this->name;
    }

    public function named(string $name): self
    {
        return new self($this->source, $this->sourceBytes, $this->track, $this->moment, $this->action, $this->format, $this->form, $this->setting, $this->samples, $this->predictedBytes, $this->tags, $this->folder, $name, $this->existing, $this->steps, $this->dither, $this->stated);
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'source' => $this->source,
            'source_bytes' => $this->sourceBytes,
            'track' => $this->track,
            'moment' => $this->moment,
            'action' => $this->action->value,
            'format' => $this->format,
            'codec' => $this->form->codec->value,
            'pcm' => $this->form->pcm === null ? null : ['kind' => $this->form->pcm->kind->value, 'bits' => $this->form->pcm->bits, 'big_endian' => $this->form->pcm->bigEndian],
            'rate' => $this->form->rate,
            'channels' => array_map(fn (Channel $channel): int => $channel->value, $this->form->layout->channels),
            'frame_length' => $this->form->frameLength,
            'width' => $this->form->width,
            'variant' => $this->form->variant,
            'kbps' => $this->setting->kbps,
            'quality' => $this->setting->quality,
            'samples' => $this->samples,
            'predicted_bytes' => $this->predictedBytes,
            'tags' => (object) $this->tags->values(),
            'folder' => $this->folder,
            'name' => $this->name,
            'exists' => $this->existing->value,
            'steps' => $this->steps,
            'dither' => $this->dither,
            'stated' => $this->stated === null ? null : (string) $this->stated,
        ];
    }

    /**
     * @param  array<array-key, mixed>  $plan  what {@see self::toArray()} gave
     *
     * @throws \UnexpectedValueException where it is not that
     */
    public static function fromArray(array $plan): self
    {
        $read = new Fields($plan);
        $channels = array_map(fn (mixed $value): Channel => Channel::tryFrom(is_int($value) ? $value : -1) ?? throw new \UnexpectedValueException('A plan names a channel that does not exist.'), $read->list('channels'));
        $first = array_shift($channels) ?? throw new \UnexpectedValueException('A plan names no channel.');
        $pcm = $read->optional('pcm');

        return new self(
            $read->text('source'),
            $read->number('source_bytes'),
            $read->number('track'),
            $read->number('moment'),
            Action::from($read->text('action')),
            $read->text('format'),
            new SoundForm(
                Codec::from($read->text('codec')),
                $read->number('rate'),
                Layout::of($first, ...$channels),
                $pcm === null ? null : new PcmForm(SampleKind::from($pcm->text('kind')), $pcm->number('bits'), $pcm->truth('big_endian')),
                '',
                $read->number('frame_length'),
                $read->text('variant'),
                $read->number('width'),
            ),
            $read->isNull('quality') ? EncoderSetting::constant($read->number('kbps')) : EncoderSetting::variable($read->number('quality')),
            $read->number('samples'),
            $read->number('predicted_bytes'),
            Tags::fromArray((array) ($plan['tags'] ?? [])),
            $read->text('folder'),
            $read->text('name'),
            Existing::from($read->text('exists')),
            array_map(fn (mixed $step): string => is_string($step) ? $step : '', $read->list('steps')),
            $read->truth('dither'),
            $read->isNull('stated') ? null : RawForm::parse($read->text('stated')),
        );
    }
}
