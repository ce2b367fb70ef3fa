<?php

declare(strict_types=1);

namespace App\Orders\Planning;

use App\Lists\Remedy;
use App\Orders\Models\OrderLine;
use App\Orders\Values\SpecWords;
use App\Sources\Models\Source;
use App\Sources\Values\AnalysisFinding;
use Octavox\Core\Copying;
use Octavox\Core\Destination\Fit;
use Octavox\Core\Destination\Rejection;
use Octavox\Core\Failure;
use Octavox\Core\Name\Signs;
use Octavox\Core\Order\IfExists;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Sound\InvalidLevel;

/** One row of the order sheet: a source, what is asked of it, and what comes of that. */
final readonly class SheetLine
{
    use Copying;

    /**
     * @param  OutputSpec  $spec  all that is asked of it
     * @param  non-empty-list<PlannedResult>  $results
     * @param  ?Failure  $refusal  why nothing can be made
     * @param  ?Fit  $fit  how the source stands to the destination, where there is one
     * @param  list<Rejection>  $refused  for what the destination would refuse what is planned
     * @param  list<AnalysisFinding>  $read  what was found when it was read and can be mended here
     */
    public function __construct(public OrderLine $line, public Source $source, public OutputSpec $spec, public array $results,
        public ?Failure $refusal = null, public ?Fit $fit = null, public array $refused = [], public array $read = [],
        public ?NameClash $clash = null, public string $placeNote = '') {}

    /** @param  list<Rejection>  $refused */
    public function refused(array $refused): self
    {
        return $this->copy(['refused' => $refused]);
    }

    /** @param  string  $note  what somebody should know of where its results lie */
    public function lying(string $note): self
    {
        return $this->copy(['placeNote' => $note]);
    }

    public function clashing(NameClash $clash): self
    {
        return $this->copy(['clash' => $clash]);
    }

    /** Whether somebody has to say first what becomes of a file that is there already. */
    public function isAsking(): bool
    {
        return $this->clash === NameClash::Exists && $this->spec->ifExists === IfExists::Ask;
    }

    /** Whether it would take the place of a source, which nothing does. */
    public function isAgainstSource(): bool
    {
        return $this->clash === NameClash::Source;
    }

    public function first(): PlannedResult
    {
        return $this->results[0];
    }

    public function isWaiting(): bool
    {
        return $this->first()->isWaiting;
    }

    /** Whether nothing is made because it is right as it is. */
    public function isRight(): bool
    {
        return $this->first()->isRight;
    }

    public function isStopped(): bool
    {
        return $this->first()->plan === null && ! $this->isWaiting() && ! $this->isRight();
    }

    /** @return list<PlannedResult> */
    public function makable(): array
    {
        return array_values(array_filter($this->results, fn (PlannedResult $one): bool => $one->plan !== null));
    }

    public function bytes(): int
    {
        return array_sum(array_map(fn (PlannedResult $one): int => $one->predictedBytes(), $this->results));
    }

    /** @return array<string, string> what differs from the order, by the field that can be set back */
    public function differs(): array
    {
        return SpecWords::say($this->line->changes());
    }

    /** @return list<Remedy> against what stands in the way */
    public function remedies(): array
    {
        return [...Remedies::suggest($this->refusal), ...($this->clash?->remedies($this->first()) ?? [])];
    }

    /** @return list<Remedy> against what stands in the way and what was heard */
    public function help(): array
    {
        $heard = array_filter($this->heard(), fn (AnalysisFinding $one): bool => $one->shaping !== []);

        return [...$this->remedies(),
            ...array_values(array_map(fn (AnalysisFinding $one): Remedy => new Remedy($one->press(), $one->shaping),
                $heard))];
    }

    /** @return list<AnalysisFinding> what was found and can be mended here, as long as nobody has chosen anything for it */
    public function heard(): array
    {
        $sound = $this->spec->sounds()[0];
        $track = $this->first()->plan?->sound()?->track;
        $isChosen = fn (string $field): bool => match ($field) {
            'layout' => $sound->layout !== null,
            'level' => $sound->level !== null,
            'name_signs' => ! in_array($this->spec->nameSigns, [null, Signs::Keep], true),
            'tag_signs' => ! in_array($this->spec->tagSigns, [null, Signs::Keep], true),
            default => $this->spec->container === null || isset($this->line->spec['container']),
        };

        return array_values(array_filter([...$this->source->analysisFindings(), ...$this->read],
            fn (AnalysisFinding $finding): bool => in_array($finding->track, [0, $track], true)
                && array_filter(array_keys($finding->shaping), $isChosen) === []));
    }

    /**
     * Of what is said in the closed row, the worst.
     *
     * @throws InvalidLevel
     */
    public function severity(): ?string
    {
        $levels = [
            ...($this->isStopped() || $this->isAgainstSource() ? ['stop'] : []), ...($this->refused === [] ? [] : ['warn']),
            ...($this->first()->warnings() === [] ? [] : ['warn']), ...($this->clash === null ? [] :
                [$this->isAsking() || $this->clash === NameClash::ForGood ? 'warn' : 'note']),
            ...array_map(fn (AnalysisFinding $one): string => $one->severity, $this->heard()),
        ];

        return array_values(array_intersect(['stop', 'warn', 'note'], $levels))[0] ?? null;
    }

    /**
     * What is said in the closed row.
     *
     * @throws InvalidLevel
     */
    public function says(): string
    {
        $first = $this->first();

        return match (true) {
            $first->plan === null => $first->obstacle,
            $this->refused !== [] => 'It would be refused: '.$this->refused[0]->says,
            $this->clash !== null => $this->clash->says($first),
            default => $first->warnings()[0] ?? $this->heard()[0]->says ?? '',
        };
    }
}
