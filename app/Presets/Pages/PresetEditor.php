<?php

declare(strict_types=1);

namespace App\Presets\Pages;

use App\Orders\Pages\FieldChoices;
use App\Orders\Planning\PlannedResult;
use App\Orders\Values\SpecForm;
use App\Orders\Values\WayDrawing;
use App\Presets\Queries\Presets;
use App\Presets\Values\DestinationInput;
use App\Presets\Values\PresetKind;
use App\Sources\Models\Source;
use App\Sources\Queries\KnownFacts;
use App\Sources\Values\SourceState;
use Octavox\Core\Destination\Destination;
use Octavox\Core\Destination\DestinationInvalid;
use Octavox\Core\Failure;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Order\Recipe;
use Octavox\Core\Order\RecipeInvalid;
use Octavox\Core\Plan\OrderLine;
use Octavox\Core\Plan\OrderPlanner;
use Octavox\Core\Plan\Plan;
use Octavox\Core\Plan\SourceKnowledge;
use Octavox\Core\Sound\InvalidLevel;

/** What the page of one recipe or destination shows: its fields, and what would come of a source that is chosen to try it on. */
final class PresetEditor
{
    private const MOST_SOURCES = 50;

    public function __construct(private readonly Presets $presets, private readonly KnownFacts $known) {}

    /**
     * @param  array<array-key, mixed>  $input  fields that are filled in and not kept yet, and `try`, the number of a source
     *
     * @throws DestinationInvalid
     * @throws RecipeInvalid
     * @throws Failure
     */
    public function open(PresetKind $kind, string $name, array $input): ?EditedPreset
    {
        $known = $this->presets->all($kind)[$name] ?? null;
        if ($known === null) {
            return null;
        }
        $form = SpecForm::of($known->what->spec)->filled($input);
        $sources = Source::query()->where('state', SourceState::Ready)->latest('id')->limit(self::MOST_SOURCES)->get(['id', 'name',
            'given_name']);
        $chosen = is_numeric($input['try'] ?? null) ? (int) $input['try'] : $sources->first()?->id;
        [$planned, $refusal] = $this->planned($chosen, $form->spec);

        return new EditedPreset($kind, $known, new FieldChoices($form, $planned), $sources, $chosen, $refusal);
    }

    /**
     * The same under another title.
     *
     * @throws Failure
     */
    public function copy(PresetKind $kind, string $name): Recipe|Destination|null
    {
        $what = ($this->presets->all($kind)[$name] ?? null)?->what;
        $title = $what === null ? '' : mb_substr($what->title, 0, 110).', copied';

        return $what === null ? null : $kind->read((array) json_decode((string) json_encode(['name' => Recipe::nameOf($title),
            'title' => $title] + $what->toArray()), true));
    }

    /**
     * @param  array<array-key, mixed>  $input
     * @return array<string, mixed>
     *
     * @throws DestinationInvalid
     * @throws RecipeInvalid
     * @throws Failure
     */
    public function document(PresetKind $kind, string $name, array $input): array
    {
        $known = $this->presets->all($kind)[$name] ?? null;
        $spec = SpecForm::of($known->what->spec ?? new OutputSpec)->filled($input)->spec;
        if ($kind === PresetKind::Destination) {
            return DestinationInput::document($input, $spec);
        }
        $text = fn (string $field): string => is_string($input[$field] ?? null) ? trim(mb_scrub($input[$field])) : '';

        return ['title' => $text('title'), 'note' => $text('note'), 'spec' => $spec->withPlace($text('place') === OutputSpec::BESIDE
            ? OutputSpec::BESIDE : null)->toArray()];
    }

    /**
     * @return array{list<PlannedResult>, string} what would come of a source, or why nothing would
     *
     * @throws InvalidLevel
     */
    private function planned(?int $chosen, OutputSpec $spec): array
    {
        $source = $chosen === null ? null : Source::query()->with('tracks')->find($chosen);
        $facts = $source?->facts();
        if ($source === null || $facts === null) {
            return [[], ''];
        }
        $knowledge = $this->known->gather($source, []);
        $line = OrderPlanner::plan(
            [new OrderLine($facts, new OutputSpec, new SourceKnowledge([], $knowledge->analyses, $knowledge->packed))],
            $spec->withPlace('/')->withName('{stem}'))[0];

        return [array_map(fn (Plan $plan): PlannedResult => PlannedResult::planned($source, $plan, $facts,
            array_sum(array_map(fn ($track): int => $track->codedBytes, $facts->sound())),
            WayDrawing::arriving($facts, $plan)), $line->plans),
            $line->refusal?->getMessage() ?? ''];
    }
}
