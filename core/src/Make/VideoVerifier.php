<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Bytes\FileBytes;
use Octavox\Core\Container\Video\AuxiliarySource;
use Octavox\Core\Container\Video\StreamedPictures;
use Octavox\Core\Container\Video\VideoSource;
use Octavox\Core\Failure;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Phase;
use Octavox\Core\Media\Progress;
use Octavox\Core\Media\Track;
use Octavox\Core\Plan\Plan;
use Octavox\Core\Plan\PlannedSound;
use Octavox\Core\Reading\OpenedSource;
use Octavox\Core\Reading\Opener;
use Octavox\Core\Sound\Level;

/** Reads a film back: every picture's bytes, and every sound track's length, start, bytes and level. */
final class VideoVerifier
{
    /** Containers state times in milliseconds at the coarsest. */
    private const TIMES_A_SECOND = 1000;

    public function __construct(private readonly Progress $progress)
    {
    }

    /** @throws VerificationFailed */
    public function verify(Plan $plan, string $temporary, WrittenVideo $written): Receipt
    {
        try {
            $sum = FileSum::begin($temporary);
            $result = Opener::open($temporary);
            $this->pictures($plan, $result, $written);
            $this->companions($plan, $result, $written);
            $levels = [];
            foreach ($plan->sounds() as $index => $sound) {
                $levels[] = $this->sound($plan, $result, $sound, $index, $written);
            }
        } catch (VerificationFailed|Abandoned $failure) {
            throw $failure;
        } catch (Failure $failure) {
            throw VerificationFailed::because($plan->path(), $failure->getMessage());
        }
        $bytes = FileBytes::open($temporary);
        $sounds = $incoming = [];
        foreach ($plan->sounds() as $index => $sound) {
            $incoming[] = $before = $written->sounds[$index]->incoming ?? $written->sounds[$index]->level ?? $levels[$index];
            $sounds[] = [
                'track' => $sound->track, 'action' => $sound->action->value, 'samples' => $sound->samples, 'rate' => $sound->audio->rate, 'layout' => $sound->audio->layout->name(), 'form' => $sound->audio->label(),
                'peak_before' => $before?->peakDecibels(), 'rms_before' => $before?->rmsDecibels(), 'peak_after' => $levels[$index]?->peakDecibels(), 'rms_after' => $levels[$index]?->rmsDecibels(),
            ];
        }
        $before = $incoming[0] ?? null;

        return new Receipt(
            $plan->samples, $plan->audio->rate, $plan->audio->layout->name(), $plan->audio->label(), $bytes->size(), $plan->sourceBytes, $before, $levels[0] ?? null,
            $plan->isKept() || array_filter($plan->sounds(), fn (PlannedSound $sound): bool => ! $sound->audio->codec->isLossless()) === [],
            $sum->result(fn () => $this->progress->reached(Phase::Verifying, $plan->samples, $plan->samples)), Verifier::notes($before), sounds: $sounds,
        );
    }

    private function pictures(Plan $plan, OpenedSource $result, WrittenVideo $written): void
    {
        $picture = $result->picture();
        if ($picture === null || ! $result->media instanceof VideoSource) {
            throw VerificationFailed::because($plan->path(), 'no picture in it');
        }
        $sign = fn () => $this->progress->reached(Phase::Verifying, 0, $plan->samples);
        if (PictureSum::of($result->media, $picture, $sign) !== Summing::of($written->pictures, $sign)) {
            throw VerificationFailed::because($plan->path(), 'its pictures are not those of the source');
        }
        $track = $written->stream?->track((int) $plan->picture);
        if ($written->stream?->media instanceof StreamedPictures && $track !== null && ! SliceCheck::agrees($written->stream->media, $track, $result->media, $picture, $sign)) {
            throw VerificationFailed::because($plan->path(), 'parts of the pictures in the source’s stream are not in it');
        }
    }

    private function companions(Plan $plan, OpenedSource $result, WrittenVideo $written): void
    {
        $tracks = array_values(array_filter($result->media->tracks(), fn (Track $track): bool => $track->coding !== ''));
        foreach ($written->companions as $index => $wanted) {
            $track = $tracks[$index] ?? null;
            $companion = $track !== null && $result->media instanceof AuxiliarySource ? $result->media->companion($track) : null;
            if ($track === null || $companion === null || ! $result->media instanceof AuxiliarySource) {
                throw VerificationFailed::because($plan->path(), 'subtitles or a time code are missing');
            }
            $hash = hash_init('xxh128');
            foreach ($result->media->companionSamples($track) as $sample) {
                hash_update($hash, AuxiliaryCopy::essence($companion, $sample->data));
            }
            if (hash_final($hash) !== $wanted) {
                throw VerificationFailed::because($plan->path(), 'its subtitles are not those of the source');
            }
        }
    }

    private function sound(Plan $plan, OpenedSource $result, PlannedSound $sound, int $index, WrittenVideo $written): ?Level
    {
        $track = $result->sound()[$index] ?? throw VerificationFailed::because($plan->path(), sprintf('sound track %d is missing', $index + 1));
        $audio = $track->sound;
        if ($audio === null || $audio->rate !== $sound->audio->rate || $audio->channels() !== $sound->audio->channels() || $audio->codec !== $sound->audio->codec) {
            throw VerificationFailed::because($plan->path(), sprintf('the form of sound track %d differs', $index + 1));
        }
        if (! Verifier::isAsLong($track->timeline->samples(), $sound->samples, $audio, $written->sounds[$index])) {
            throw VerificationFailed::because($plan->path(), sprintf('%s samples instead of %s in sound track %d', number_format($track->timeline->samples()), number_format($sound->samples), $index + 1));
        }
        $late = $track->timeline->startOffset - (int) round(($result->picture()->picture->startOffset ?? 0.0) * $audio->rate);
        if (abs($late - $written->late[$index]) > $audio->rate / self::TIMES_A_SECOND + 1) {
            throw VerificationFailed::because($plan->path(), sprintf('sound track %d begins at another time', $index + 1));
        }
        $own = new Plan($plan->source, $plan->sourceBytes, $sound->track, 0, $sound->action, $plan->format, $sound->audio, $sound->setting, $sound->samples, 0, $plan->tags, $plan->folder, $plan->name, $plan->existing, [], false);
        $packets = $written->sounds[$index];

        // Uncompressed sound may be divided into other packets; all its bytes together are the same.
        return (new Verifier($this->progress))->compare($own, $result, $track, $audio->codec === Codec::Pcm ? new Written($packets->hash, null, 0, $packets->level) : $packets, null);
    }
}
