<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Codec\RateControl;
use Octavox\Core\Json\Fields;
use Octavox\Core\Media\AudioFormat;

/** What will become of one sound track of a film. */
final readonly class PlannedSound
{
    /** @param  int  $samples  that are presented, without the silence before a late start */
    public function __construct(public int $track, public Action $action, public AudioFormat $audio, public RateControl $setting, public int $samples, public bool $dither, public Shape $shape = new Shape)
    {
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'track' => $this->track,
            'action' => $this->action->value,
            ...StoredForm::fields($this->audio),
            'kbps' => $this->setting->kbps,
            'quality' => $this->setting->quality,
            'samples' => $this->samples,
            'dither' => $this->dither,
            'shape' => $this->shape->toArray(),
        ];
    }

    /** @throws \UnexpectedValueException */
    public static function fromFields(Fields $fields): self
    {
        $audio = StoredForm::read($fields);

        return new self(
            $fields->number('track'),
            Action::from($fields->text('action')),
            $audio,
            $fields->isNull('quality') ? RateControl::constant($fields->number('kbps')) : RateControl::variable($fields->number('quality')),
            $fields->number('samples'),
            $fields->bool('dither'),
            Shape::stored($fields, $audio->layout),
        );
    }
}
