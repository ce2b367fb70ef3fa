<?php

declare(strict_types=1);

namespace Octavox\Core\Reading;

use Octavox\Core\Json\Fields;
use Octavox\Core\Media\Diagnostic;
use Octavox\Core\Media\Findings\FindingKind;
use Octavox\Core\Media\Findings\FindingKinds;
use Octavox\Core\Media\Findings\Other;
use Octavox\Core\Media\Severity;

/** One thing that stands in the way or is worth knowing; {@see FindingWords} tell it in one sentence, with what to do. */
final readonly class Finding
{
    /**
     * @param  array<string, string>  $shaping  what of an order the remedy fills in: `layout`, `level`, `format`, `name_signs`,
     *          `tag_signs`; empty where it is nothing of that
     * @param  ?Other  $told  the words of the release that found it, where it told it in others
     */
    public function __construct(public FindingKind $kind, public Severity $severity, public array $shaping = [],
        private ?Other $told = null) {}

    public static function noticed(Diagnostic $diagnostic): self
    {
        return new self($diagnostic->kind, $diagnostic->severity);
    }

    /** @param  array<string, string>  $shaping  that would mend it */
    public function mendedBy(array $shaping): self
    {
        return new self($this->kind, $this->severity, $shaping, $this->told);
    }

    public function says(): string
    {
        return $this->told === null ? FindingWords::says($this->kind) : $this->told->says;
    }

    public function remedy(): string
    {
        return $this->told === null ? FindingWords::remedy($this->kind, $this->shaping !== []) : $this->told->remedy;
    }

    /** The word that stands for its kind, such as `cut-short`. */
    public function code(): string
    {
        return $this->kind instanceof Other ? $this->kind->code : FindingKinds::mapper()->word($this->kind);
    }

    /** @return array<string, mixed> with its words, for whoever reads it elsewhere */
    public function toArray(): array
    {
        $values = $this->told === null ? FindingKinds::mapper()->values($this->kind) : [];

        return array_filter(['code' => $this->code(), 'level' => $this->severity->value, 'says' => $this->says(),
            'remedy' => $this->remedy(), 'values' => $values, 'shaping' => $this->shaping, 'track' => $values['track'] ?? null],
            fn (mixed $value): bool => $value !== [] && $value !== null);
    }

    /**
     * @throws \UnexpectedValueException where it is no finding
     */
    public static function read(Fields $fields): self
    {
        $severity = Severity::tryFrom($fields
            ->text('level')) ?? throw new \UnexpectedValueException('The severity of a finding is unknown.');
        $shaping = array_filter($fields->optional('shaping')?->scalars() ?? [], is_string(...));
        $told = new Other($fields->text('code'), $fields->text('says'), $fields->text('remedy'));
        $kind = FindingKinds::mapper()->build($told->code, $fields->optional('values')?->all() ?? []) ?? $told;
        $own = new self($kind, $severity, $shaping);

        // Another release may have told it in other words, without the values: those are kept.
        return $own->says() === $told->says ? $own : new self($kind, $severity, $shaping, $told);
    }
}
