<?php

declare(strict_types=1);

namespace Octavox\Core\Destination;

use Octavox\Core\Analysis\Measurements;
use Octavox\Core\Codec\RateMode;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Track;
use Octavox\Core\Plan\Plan;
use Octavox\Core\Plan\SoundPlan;
use Octavox\Core\Reading\Reading;
use Octavox\Core\Sound\LevelKind;
use Octavox\Core\Tag\Cover;
use Octavox\Core\Tag\Tags;

/** What a destination looks at: of a file that is there, or of one that a plan would make. */
final readonly class Facts
{
    /** LUFS of what holds nothing to be measured. */
    private const SILENCE = -200.0;

    /** Headers and the last frame make the bit rate of a short file look higher; steps of bit rates are farther apart. */
    private const RATE_TOLERANCE = 0.05;

    /**
     * @param  list<AudioFormat>  $sounds  of all sound tracks
     * @param  list<?float>  $kbps  of each, 1000 bits a second
     * @param  ?float  $loudness  LUFS of the first sound; null where it is not known
     */
    private function __construct(public string $container, public bool $hasPicture, public array $sounds, public array $kbps,
        public bool $isVariable, public int $bytes, public float $seconds, public string $name, public Tags $tags, public bool $hasCover,
        public ?float $loudness, public bool $hasBroadcast = false,
        public bool $isIndexLast = false) {}

    public static function ofReading(Reading $reading, ?Measurements $measured = null): self
    {
        $tracks = $reading->sound();

        return new self($reading->container, $reading->picture() !== null,
            array_values(array_filter(array_map(fn (Track $track): ?AudioFormat => $track->sound, $tracks))),
            array_map(self::kbps(...), $tracks), in_array('variable', $reading->rateModes(), true),
            $reading->bytes, $reading->seconds, basename($reading->path), $reading->tags, $reading->cover !== '',
            self::loudness($measured), $reading->tags->broadcast !== null, $reading->indexLast);
    }

    public static function ofPlan(Plan $plan, Reading $source, ?Measurements $measured = null): self
    {
        $kbps = fn (SoundPlan $sound): ?float => $sound->isKept() ? self::kbps($source->track($sound->track))
            : ($sound->audio->pcm !== null ? $sound->audio->rate * $sound->audio->frameBytes() / 125
                : ($sound->rateControl->kbps > 0 ? (float) $sound->rateControl->kbps : null));
        $variable = array_filter($plan->sounds, fn (SoundPlan $sound): bool => $sound->isKept()
            ? ($source->rateModes()[$sound->track] ?? '') === 'variable' : $sound->rateControl->quality !== null
                || $sound->rateControl->mode === RateMode::Average && $sound->audio->codec === Codec::Mp3);

        return new self(self::containerOf($plan->target->container), $plan->picture !== null,
            array_map(fn (SoundPlan $sound): AudioFormat => $sound->audio, $plan->sounds), array_map($kbps, $plan->sounds),
            $variable !== [], $plan->target->predictedBytes, $plan->seconds(), $plan->name(), $plan->tags,
            Cover::isGiven($plan->cover, $source->cover !== ''), self::planned($plan, $measured),
            $plan->tags->broadcast !== null && Outputs::named($plan->target->container)?->capabilities()->holdsBroadcast === true);
    }

    private static function loudness(?Measurements $measured): ?float
    {
        return $measured === null ? null : $measured->loudness->integrated ?? self::SILENCE;
    }

    /** What the first sound is set to; that of the source where its samples stay as they are. */
    private static function planned(Plan $plan, ?Measurements $measured): ?float
    {
        $shape = $plan->sound()?->shape;
        if ($shape?->level !== null) {
            return $shape->level->kind === LevelKind::Loudness ? $shape->level->value : null;
        }

        return $shape === null || $shape->changesSamples() ? null : self::loudness($measured);
    }

    /** @param  string  $format  name of a sound or video format that can be made */
    public static function containerOf(string $format): string
    {
        return Outputs::named($format)?->container() ?? $format;
    }

    /** Over all that is coded, not only over what is presented. */
    public static function kbps(?Track $track): ?float
    {
        $coded = $track?->timeline->coded ?? 0;

        return $track?->sound === null || $coded === 0 ? null : $track->codedBytes * $track->sound->rate / $coded / 125;
    }

    /** Whether a bit rate lies within two limits, as near as bit rates can be told. */
    public static function isWithin(float $kbps, int $least, int $most): bool
    {
        return $kbps >= $least * (1 - self::RATE_TOLERANCE) && $kbps <= $most * (1 + self::RATE_TOLERANCE);
    }
}
