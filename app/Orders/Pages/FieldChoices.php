<?php

declare(strict_types=1);

namespace App\Orders\Pages;

use App\Lists\Humanize;
use App\Orders\Planning\PlannedResult;
use App\Orders\Values\QualityNumbers;
use App\Orders\Values\SpecForm;
use Octavox\Core\Codec\RateMode;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Order\Quality;
use Octavox\Core\Sound\ChannelMap;
use Octavox\Core\Sound\Layout;

/** What can be filled in of a spec, with what each choice means for the sources that it is for. */
final readonly class FieldChoices
{
    /**
     * @param  list<PlannedResult>  $planned  what would come of it
     * @param  bool  $hasDestination  whether a destination chooses the format where nobody does
     */
    public function __construct(public SpecForm $form, public array $planned, public bool $hasDestination = false) {}

    /** @return list<OutputFormat> what the sound of the chosen video can be made as */
    public function videoSounds(): array
    {
        $video = $this->form->video();

        return $video === null ? [] : array_values(array_filter(
            array_map(fn (string $name): ?OutputFormat => Outputs::named($name), SpecForm::VIDEO_SOUNDS),
            fn (?OutputFormat $format): bool => $format !== null
                && $video->carriesSound($format->audio(new AudioFormat(Codec::Unknown, 48000, Layout::stereo()), 48000, Layout::stereo(),
                    null)->withConfig('x')),
        ));
    }

    /** @return array<string, array{string, string, string}> label, value and example of what can be said for broadcasting, by the field */
    public function broadcast(): array
    {
        $said = $this->form->spec->broadcast?->toArray() ?? [];
        $words = ['description' => ['Description', 'Gates, second take'], 'originator' => ['Originator', 'who made it'],
            'reference' => ['Reference', 'by which it is found again'], 'date' => ['Date', '2026-05-09'], 'time' => ['Time', '14:03:22']];

        return array_map(fn (string $field): array => [$words[$field][0], $said[$field] ?? '', $words[$field][1]], SpecForm::BROADCAST);
    }

    /** Whether it is settled in which format results are made; else a destination decides for each source. */
    public function hasFormat(): bool
    {
        return ! $this->hasDestination || $this->form->format() !== '';
    }

    /** Beneath the choice of rate: what leaving it to the source means. */
    public function rateNote(): string
    {
        $rates = $this->form->encoder()->capabilities()->rates;

        return match (true) {
            $this->form->sound()->rate !== null => Humanize::rate($this->form->sound()->rate).' for all',
            count($rates) === 1 => $this->form->encoder()->label().' has only '.Humanize::rate($rates[0]),
            $rates !== [] => 'each source keeps its own, or the next that '.$this->form->encoder()->label().' has',
            default => 'each source keeps the rate it was recorded at',
        };
    }

    /** The bit rates that are really set for what is on the sheet. */
    public function qualityNote(): string
    {
        $kbps = [];
        foreach ($this->planned as $one) {
            foreach ($one->plan->sounds ?? [] as $sound) {
                if (! $sound->isKept() && $sound->rateControl->kbps > 0) {
                    $kbps[] = $sound->rateControl->kbps;
                }
            }
        }
        $quality = $this->form->plainQuality();
        if ($kbps === [] || $this->form->sound()->rateControl?->quality !== null) {
            return QualityNumbers::say($quality ?? $this->form->sound()->rateControl, $this->form->encoder());
        }
        $rates = min($kbps) === max($kbps) ? max($kbps).' kbit/s' : min($kbps).' to '.max($kbps).' kbit/s';
        $kept = $quality === Quality::Least ? 'kept where it can be, else ' : '';

        $mode = $this->form->sound()->rateControl->mode ?? $this->form->encoder()->capabilities()->rateModes[0] ?? null;
        $held = $mode === RateMode::Average ? ' on average, ' : ', constant, ';

        return $kept.$rates.$held.number_format(max($kbps) * 125 * 60 / 1e6, 2).' MB a minute';
    }

    public function formatNote(): string
    {
        return ! $this->hasFormat() ? 'each source as the destination needs it' : $this->form->video()?->suits() ?? $this->form->encoder()
            ->capabilities()->suits;
    }

    public function bitsNote(): string
    {
        return $this->form->sound()->bitDepth === null ? 'as the source has it; 16 bits where it is compressed'
            : match ($this->form->sound()->bitDepth) {
                8 => '8 bits, 48 dB; for telephone systems',
                16 => '16 bits, 96 dB; what nearly everything takes',
                24 => '24 bits, 144 dB; for cutting and mixing',
                default => '32 bits, whole numbers',
            };
    }

    public function layoutNote(): string
    {
        $most = $this->form->encoder()->capabilities()->mostChannels;

        return match ($this->form->layout()) {
            'mono' => 'all channels together in one',
            'stereo' => 'two channels; a single one on both sides',
            'split' => $this->form->video() === null ? 'a mono file of each channel' : 'a mono track of each channel beside the picture',
            'asis' => $most < 3 ? sprintf('as many as the source has; %s carries %s', $this->form->encoder()->label(),
                $most === 1 ? 'one' : 'two') : 'as many as the source has',
            default => 'for every source that has these channels',
        };
    }

    /** @return array<string, string> layouts that at least one source can have, by their word; one made by hand among them */
    public function layouts(): array
    {
        $counts = array_unique(array_map(fn (PlannedResult $one): int => $one->channels(), $this->planned));
        $fit = array_filter(ChannelMap::WORDS, fn (array $word): bool => $word[1] === 0
            || array_filter($counts, fn (int $count): bool => $word[1] === 2 ? $count >= 2 : $count === $word[1]) !== []);
        $layouts = array_map(fn (array $word): string => $word[0], $fit);
        if ($this->form->video() !== null) {
            $layouts['split'] = 'One track each';
        }

        return isset($layouts[$this->form->layout()]) ? $layouts
            : $layouts + [$this->form->layout() => ChannelMap::WORDS[$this->form->layout()][0] ?? 'By hand: '.$this->form->layout()];
    }

    public function levelNote(): string
    {
        $target = $this->form->levelTarget();

        return match (true) {
            $this->form->sound()->level === null => 'as loud as each source is',
            $target === null => 'cannot be read',
            $this->form->sound()->together === true => 'the loudest reaches it, the others stay as much lower as they are',
            $target->hasCeiling() => 'by plain gain; the true peak stays below the ceiling',
            default => 'by plain gain, each file for itself',
        };
    }

    public function trackNote(): string
    {
        return match (true) {
            $this->form->sound()->tracks === null => $this->form->video() === null ? 'the first sound track of each source'
                : 'every sound track of each source',
            $this->form->sound()->tracks === 'all' => $this->form->video() === null ? 'one file for each sound track'
                : 'every sound track of each source',
            $this->form->sound()->tracks === 'joined' => 'their channels follow each other; choose the layout beside',
            ctype_digit((string) $this->form->sound()->tracks) => 'by its number in the source',
            default => 'every sound track in this language',
        };
    }

    /** @return array<string, string> lengths to choose from, by the value of the choice; none beside a picture */
    public function lengths(): array
    {
        return $this->form->video() !== null ? [] : ['sound' => 'As the sound',
            ...($this->offersPicture() || $this->form->length()->isOfPicture() ? ['picture' => 'As the picture'] : []),
            'time' => 'Exactly'];
    }

    /** Whether any source has a picture that its sound could be made as long as. */
    private function offersPicture(): bool
    {
        return array_filter($this->planned, fn (PlannedResult $one): bool => (string) $one->source->picture !== '') !== [];
    }

    public function lengthNote(): string
    {
        return $this->form->length()->isOfSound() ? 'as long as each sound track lasts'
            : 'silence after a shorter sound, a longer one is cut';
    }

    public function ditherNote(): string
    {
        return $this->form->sound()->dither === false ? 'what does not fit is cut off by plain rounding'
            : 'where bits are lost, a little noise keeps quiet passages clean';
    }

    public function compressionNote(): string
    {
        $levels = $this->form->encoder()->capabilities()->compression;

        return sprintf('%d is fastest, %d smallest; every sample is kept', min($levels ?: [0]), max($levels ?: [0]));
    }

    public function heldNote(): string
    {
        return match ($this->form->sound()->rateControl?->mode) {
            RateMode::Constant => 'the same in every frame',
            RateMode::Average => 'more for hard moments, less for easy ones',
            null => ($this->form->encoder()->capabilities()->rateModes[0] ?? null) === RateMode::Average ? 'on average' : 'constant',
        };
    }

    /** Whether there is anything to say to the encoder besides its quality. */
    public function hasEncoderChoices(): bool
    {
        $capabilities = $this->form->encoder()->capabilities();

        return $this->hasFormat() && ($this->offersHeld() || $capabilities->stereoCoding || $capabilities->checksums
            || $capabilities->compression !== [] || $capabilities->makes && $capabilities->bitDepths !== []);
    }

    /** Whether the bit rate that is asked for can be held in more than one way. */
    public function offersHeld(): bool
    {
        $rateControl = $this->form->sound()->rateControl;

        return $rateControl !== null && $rateControl->kbps > 0 && count($this->form->encoder()->capabilities()->rateModes) > 1;
    }

    /** @return list<string> what the encoder is told, in words; none where it is left to itself */
    public function encoderWords(): array
    {
        $sound = $this->form->sound();

        return array_values(array_filter([
            $sound->rateControl?->mode === null ? '' : $sound->rateControl->mode->value.' bit rate',
            $sound->stereo === null ? '' : $sound->stereo->value.' stereo',
            $sound->checksums === true ? 'checksums' : '',
            $sound->compression === null ? '' : 'compression '.$sound->compression,
            $sound->dither === false ? 'no dither' : '',
        ], fn (string $word): bool => $word !== ''));
    }

    /** @return array<array-key, string> choices of sound track, by their value; none where each source has only one */
    public function tracks(): array
    {
        $numbers = $languages = [];
        foreach ($this->planned as $one) {
            $sound = $one->source->soundTracks();
            foreach ($sound->count() < 2 ? [] : $sound as $track) {
                $numbers[(string) $track->number] = 'Track '.$track->number;
                if ($track->language !== null) {
                    $languages[$track->language] = 'In '.Humanize::language($track->language);
                }
            }
        }
        if ($numbers === []) {
            return [];
        }
        ksort($numbers, SORT_NUMERIC);
        $choices = ['' => $this->form->video() === null ? 'The first' : 'All'] + ($this->form->video() === null
            ? ['all' => 'All, a file each', 'joined' => 'All as one sound'] : []);

        // Numbers are kept as they are, so the lists are added, not joined.
        return $choices + $numbers + $languages;
    }
}
