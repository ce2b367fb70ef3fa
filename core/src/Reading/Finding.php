<?php

declare(strict_types=1);

namespace Octavox\Core\Reading;

use Octavox\Core\Json\Fields;
use Octavox\Core\Media\Diagnostic;
use Octavox\Core\Media\FindingKind;
use Octavox\Core\Media\Severity;

/** One thing that stands in the way or is worth knowing; {@see FindingWords} tell it in one sentence, with what to do. */
final readonly class Finding
{
    /**
     * @param  array<string, int|float|string>  $values  what its words name
     * @param  array<string, string>  $shaping  what of an order the remedy fills in: `layout`, `level`, `format`, `name_signs`,
     *          `tag_signs`; empty where it is nothing of that
     * @param  ?int  $track  number of the sound track that it is about, null where it is about the whole source
     */
    private function __construct(public FindingKind $kind, public Severity $severity, public array $values, public array $shaping = [],
        public ?int $track = null) {}

    public static function of(FindingKind $kind, Severity $severity, int|float|string ...$values): self
    {
        return new self($kind, $severity, array_filter($values, is_string(...), ARRAY_FILTER_USE_KEY));
    }

    public static function noticed(Diagnostic $diagnostic): self
    {
        return new self($diagnostic->kind, $diagnostic->severity, $diagnostic->values);
    }

    /** @param  array<string, string>  $shaping  that would mend it */
    public function about(int $track, array $shaping = []): self
    {
        return new self($this->kind, $this->severity, ['track' => $track] + $this->values, $shaping, $track);
    }

    /** @param  array<string, string>  $shaping  that would mend it for the whole source */
    public function mendedBy(array $shaping): self
    {
        return new self($this->kind, $this->severity, $this->values, $shaping, $this->track);
    }

    public function says(): string
    {
        return FindingWords::says($this);
    }

    public function remedy(): string
    {
        return FindingWords::remedy($this);
    }

    public function number(string $name): float
    {
        return (float) ($this->values[$name] ?? 0);
    }

    public function text(string $name): string
    {
        return (string) ($this->values[$name] ?? '');
    }

    /** @return array<string, mixed> with its words, for whoever reads it elsewhere */
    public function toArray(): array
    {
        return array_filter(['code' => $this->kind->value, 'level' => $this->severity->value, 'says' => $this->says(),
            'remedy' => $this->remedy(), 'values' => $this->values, 'shaping' => $this->shaping, 'track' => $this->track],
            fn (mixed $value): bool => $value !== [] && $value !== null);
    }

    /**
     * @throws \UnexpectedValueException where it is no finding
     */
    public static function read(Fields $fields): self
    {
        $level = Severity::tryFrom($fields->text('level')) ?? throw new \UnexpectedValueException('The level of a finding is unknown.');
        $shaping = array_filter($fields->optional('shaping')?->scalars() ?? [], is_string(...));
        $own = new self(FindingKind::tryFrom($fields->text('code')) ?? FindingKind::Other, $level,
            $fields->optional('values')?->scalars() ?? [], $shaping, $fields->numberOrNull('track'));

        // Another release may have told it in other words, without the values: those are kept.
        return $own->says() === $fields->text('says') ? $own
            : new self($own->kind, $level, ['says' => $fields->text('says'), 'remedy' => $fields->text('remedy')], $shaping, $own->track);
    }
}
