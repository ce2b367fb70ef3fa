<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Codec\EncoderSettings;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Codec\RateMode;
use Octavox\Core\Codec\StereoCoding;
use Octavox\Core\Json\Fields;
use Octavox\Core\Media\AudioFormat;

/** What becomes of one sound: of a track, or of several whose channels are taken together. */
final readonly class SoundPlan
{
    /**
     * @param  int  $presentationStart  samples of the source's time at which the result begins
     * @param  ?int  $duration  samples of the source's time from there on; null where the result lasts as the track presents
     * @param  AudioFormat  $audio  of the result
     * @param  int  $samples  that the result presents, exact; beside a picture without the silence before a late start
     */
    public function __construct(
        public int $track,
        public int $presentationStart,
        public ?int $duration,
        public Action $action,
        public AudioFormat $audio,
        public RateControl $rateControl,
        public int $samples,
        public bool $dither,
        public Shape $shape = new Shape,
        public EncoderSettings $settings = new EncoderSettings,
    ) {}

    public function isKept(): bool
    {
        return $this->action === Action::Kept;
    }

    /** @return non-empty-list<int> numbers of all tracks that are in it */
    public function tracks(): array
    {
        return [$this->track, ...$this->shape->joined];
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'track' => $this->track,
            'presentation_start' => $this->presentationStart,
            'duration' => $this->duration,
            'action' => $this->action->value,
            'audio' => $this->audio->toArray(),
            'kbps' => $this->rateControl->kbps,
            'quality' => $this->rateControl->quality,
            'rate_mode' => $this->rateControl->mode?->value,
            'settings' => (object) $this->settings->toArray(),
            'samples' => $this->samples,
            'dither' => $this->dither,
            'shape' => $this->shape->toArray(),
        ];
    }

    /** @throws \UnexpectedValueException where it is not what {@see self::toArray()} gave */
    public static function fromFields(Fields $fields): self
    {
        $audio = AudioFormat::fromFields($fields->optional('audio')
            ?? throw new \UnexpectedValueException('A plan holds a sound without a format.'));

        return new self(
            $fields->number('track'),
            $fields->number('presentation_start'),
            $fields->numberOrNull('duration'),
            Action::tryFrom($fields->text('action'))
                ?? throw new \UnexpectedValueException('A plan holds a sound that is neither kept nor remade.'),
            $audio,
            $fields->isNull('quality') ? RateControl::exactly($fields->number('kbps'))
                ->held($fields->isNull('rate_mode') ? null : RateMode::tryFrom($fields->text('rate_mode')))
                : RateControl::variable($fields->number('quality')),
            $fields->number('samples'),
            $fields->bool('dither'),
            Shape::stored($fields->optional('shape')
                ?? throw new \UnexpectedValueException('A plan holds a sound without a shape.'), $audio->layout),
            self::settings($fields->optional('settings') ?? new Fields([])),
        );
    }

    private static function settings(Fields $fields): EncoderSettings
    {
        return new EncoderSettings(
            StereoCoding::tryFrom($fields->textOrNull('stereo') ?? ''),
            $fields->isNull('checksums') ? null : $fields->bool('checksums'),
            $fields->numberOrNull('compression'),
        );
    }
}
