<?php

declare(strict_types=1);

namespace App\Values;

use App\Models\Source;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Failure;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Order\Length;
use Octavox\Core\Order\Quality;
use Octavox\Core\Sound\ChannelMap;
use Octavox\Core\Sound\Layout;

/** An order sheet: what was filled in, and what would come of it. */
final readonly class Sheet
{
    /** Results that are shown at once. */
    private const AT_ONCE = 40;

    /**
     * @param  list<PlannedResult>  $planned
     * @param  int  $count  of results that can be made
     * @param  int  $bytes  of all results together, predicted
     * @param  int  $soundBytes  of the sound that goes in
     * @param  float  $seconds  length of all results together
     * @param  ?float  $takes  seconds of work at the speed measured lately
     * @param  int  $from  the first result that is shown; the others come when they are looked at
     * @param  array<array-key, string>  $tracks  choices of sound track, by their value; none where each source has only one
     */
    public function __construct(public OrderForm $form, public array $planned, public int $count, public int $bytes, public int $soundBytes,
        public float $seconds, public ?float $takes, public array $tracks, public int $from = 0) {}

    /** Whether something is still being found out, so that the sheet is to be asked for again. */
    public function isWaiting(): bool
    {
        return array_filter($this->planned, fn (PlannedResult $one): bool => $one->isWaiting) !== [];
    }

    /** @return list<PlannedResult> of this part of the sheet */
    public function shown(): array
    {
        return array_slice($this->planned, $this->from, self::AT_ONCE);
    }

    /** Where the next part begins. */
    public function next(): int
    {
        return $this->from + self::AT_ONCE;
    }

    /** How many come after this part. */
    public function hidden(): int
    {
        return max(0, count($this->planned) - $this->next());
    }

    /** @param  array<string, int>  $more  asked beside what is filled in */
    public function address(array $more = []): string
    {
        return route('order', $this->form->query() + $more);
    }

    /** @return list<OutputFormat> what the sound of the chosen video can be made as */
    public function videoSounds(): array
    {
        $video = $this->form->video();

        return $video === null ? [] : array_values(array_filter(
            array_map(fn (string $name): ?OutputFormat => Outputs::named($name), OrderForm::VIDEO_SOUNDS),
            fn (?OutputFormat $format): bool => $format !== null
                && $video->carriesSound($format->audio(new AudioFormat(Codec::Unknown, 48000, Layout::stereo()), 48000, Layout::stereo(),
                    null)->withConfig('x')),
        ));
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
        if ($kbps === [] || $this->form->quality() === Quality::Breathing) {
            return QualityNumbers::of($this->form->quality(), $this->form->encoder());
        }
        $rates = min($kbps) === max($kbps) ? max($kbps).' kbit/s' : min($kbps).' to '.max($kbps).' kbit/s';
        $kept = $this->form->quality() === Quality::Least ? 'kept where it can be, else ' : '';

        return $kept.$rates.', constant, '.number_format(max($kbps) * 125 * 60 / 1e6, 2).' MB a minute';
    }

    public function formatNote(): string
    {
        return $this->form->video()?->suits() ?? $this->form->encoder()->capabilities()->suits;
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

    /** @return list<PlannedResult> the first result of each source that has sound, for the channel map */
    public function mapped(): array
    {
        $first = [];
        foreach ($this->planned as $one) {
            if ($one->channels() > 0) {
                $first[$one->source->id] ??= $one;
            }
        }

        return array_values($first);
    }

    /** @return array<string, string> for the first source: each layout that it can have, written channel by channel */
    public function words(): array
    {
        $first = $this->mapped()[0] ?? null;
        $words = [];
        if ($first === null) {
            return $words;
        }
        foreach ([...array_keys(ChannelMap::WORDS), $this->form->layout()] as $word) {
            try {
                $words[(string) $word] = ChannelMap::parse((string) $word, $first->layout ?? Layout::mono())->text();
            } catch (Failure) {
                continue;
            }
        }

        return $words;
    }

    /** @return list<string> names of the sources whose channels are not like those of the first */
    public function unlike(): array
    {
        $mapped = $this->mapped();

        return array_values(array_map(fn (PlannedResult $one): string => sprintf('%s (%s)', $one->source->name,
            $one->channels() === 1 ? 'one' : $one->channels()),
            array_filter($mapped, fn (PlannedResult $one): bool => $one->channels() !== $mapped[0]->channels())));
    }

    /** @return list<Source> */
    public function sources(): array
    {
        return array_map(fn (PlannedResult $one): Source => $one->source, $this->mapped());
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

    /** Whether any source has a picture that its sound could be made as long as. */
    public function offersLength(): bool
    {
        return $this->form->video() === null
            && array_filter($this->planned, fn (PlannedResult $one): bool => (string) $one->source->picture !== '') !== [];
    }

    public function lengthNote(): string
    {
        return $this->form->length() === Length::Sound ? 'as long as each sound track lasts'
            : 'silence after a shorter sound, a longer one is cut';
    }
}
