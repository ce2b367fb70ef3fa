<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileBytes;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Container\Video\AuxiliarySource;
use Octavox\Core\Container\Video\StreamedPictures;
use Octavox\Core\Container\Video\VideoOutputs;
use Octavox\Core\Container\Video\VideoSource;
use Octavox\Core\Failure;
use Octavox\Core\Media\Phase;
use Octavox\Core\Media\Progress;
use Octavox\Core\Media\Track;
use Octavox\Core\Parallel\Abandoned;
use Octavox\Core\Plan\Plan;
use Octavox\Core\Plan\SoundPlan;
use Octavox\Core\Reading\OpenedSource;
use Octavox\Core\Reading\Opener;

/** Reads a video back: every picture's bytes, and every sound track's length, start, bytes and level. */
final class VideoVerifier
{
    /** Containers state times in milliseconds at the coarsest. */
    private const TIMES_A_SECOND = 1000;

    public function __construct(private readonly Plan $plan, private readonly Progress $progress) {}

    /**
     * @throws VerificationFailed
     * @throws Abandoned
     * @throws FileUnreadable
     */
    public function verify(string $temporary, WrittenVideo $written): Receipt
    {
        $receipts = [];
        try {
            $sum = FileSum::begin($temporary);
            $result = Opener::open($temporary);
            $this->pictures($result, $written);
            $this->auxiliaries($result, $written);
            if (count($result->sound()) !== count($this->plan->sounds)) {
                throw VerificationFailed::because($this->plan->path(),
                    sprintf('%d sound tracks instead of %d', count($result->sound()), count($this->plan->sounds)));
            }
            foreach ($this->plan->sounds as $index => $sound) {
                $receipts[] = $this->sound($result, $sound, $index, $written);
            }
        } catch (VerificationFailed|Abandoned $failure) {
            throw $failure;
        } catch (Failure $failure) {
            throw VerificationFailed::because($this->plan->path(), $failure->getMessage());
        }

        return $this->receipt($receipts, FileBytes::open($temporary)->size(), $sum->result($this->sign(...)));
    }

    /** @param  list<SoundReceipt>  $sounds */
    private function receipt(array $sounds, int $bytes, string $checksum): Receipt
    {
        $first = $this->plan->sound();
        $lossy = array_filter($this->plan->sounds, fn (SoundPlan $sound): bool => ! CodecModules::of($sound->audio->codec)->isLossless());

        return new Receipt(
            $this->plan->length(), $this->plan->lengthRate(), $first?->audio->layout->name() ?? '',
            $first === null ? 'picture without sound' : CodecModules::describe($first->audio),
            $bytes, $this->plan->source->bytes, $sounds[0]->before ?? null, $sounds[0]->after ?? null,
            $this->plan->isKept() || $lossy === [], $checksum, SoundVerifier::overload($sounds[0]->before ?? null), null, $sounds,
        );
    }

    /**
     * @throws VerificationFailed
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    private function pictures(OpenedSource $result, WrittenVideo $written): void
    {
        $picture = $result->picture();
        if ($picture === null || ! $result->media instanceof VideoSource) {
            throw VerificationFailed::because($this->plan->path(), 'no picture in it');
        }
        if (PictureSum::compute($result->media, $picture, $this->sign(...)) !== Summing::compute($written->pictures, $this->sign(...))) {
            throw VerificationFailed::because($this->plan->path(), 'its pictures are not those of the source');
        }
        $track = $written->stream?->track($this->plan->picture->track ?? 0);
        $media = $written->stream?->media;
        if ($media instanceof StreamedPictures && $track !== null
            && ! SliceCheck::agrees($media, $track, $result->media, $picture, $this->sign(...))) {
            throw VerificationFailed::because($this->plan->path(), 'parts of the pictures in the source’s stream are not in it');
        }
    }

    /** @throws VerificationFailed */
    private function auxiliaries(OpenedSource $result, WrittenVideo $written): void
    {
        $tracks = array_values(array_filter($result->media->tracks(), fn (Track $track): bool => $track->coding !== ''));
        foreach ($written->auxiliaries as $index => $wanted) {
            $track = $tracks[$index] ?? null;
            $auxiliary = $track !== null && $result->media instanceof AuxiliarySource ? $result->media->auxiliary($track) : null;
            if ($track === null || $auxiliary === null || ! $result->media instanceof AuxiliarySource) {
                throw VerificationFailed::because($this->plan->path(), 'subtitles or a time code are missing');
            }
            $hash = hash_init('xxh128');
            foreach ($result->media->auxiliarySamples($track) as $sample) {
                hash_update($hash, AuxiliaryCopy::essence($auxiliary, $sample->data));
            }
            if (hash_final($hash) !== $wanted) {
                throw VerificationFailed::because($this->plan->path(), 'its subtitles are not those of the source');
            }
        }
    }

    /** @throws Failure */
    private function sound(OpenedSource $result, SoundPlan $sound, int $index, WrittenVideo $written): SoundReceipt
    {
        $own = $written->sounds[$index];
        $track = $result->sound()[$index] ?? throw VerificationFailed::because($this->plan->path(),
            sprintf('sound track %d is missing', $index + 1));
        $verifier = new SoundVerifier($this->plan->path(), $sound, $this->progress,
            VideoOutputs::named($this->plan->target->container)?->holdsLayout($sound->audio) !== false);
        $verifier->requireAlike($track, $own, sprintf('sound track %d', $index + 1));
        $rate = $sound->audio->rate;
        $late = $track->timeline->startOffset - (int) round(($result->picture()->picture->startOffset ?? 0.0) * $rate);
        if (abs($late - $written->late[$index]) > $rate / self::TIMES_A_SECOND + 1) {
            throw VerificationFailed::because($this->plan->path(), sprintf('sound track %d begins at another time', $index + 1));
        }
        $after = $verifier->compare($result, $track, $own, null);
        $before = $own->encoded->incoming ?? $own->encoded->level ?? $after;

        return new SoundReceipt($sound->track, $sound->isKept(), $sound->samples, CodecModules::describe($sound->audio),
            $sound->audio->layout->name(), $before, $after);
    }

    private function sign(): void
    {
        $this->progress->reached(Phase::Verifying, $this->plan->length(), $this->plan->length());
    }
}
