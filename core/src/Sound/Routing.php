<?php

declare(strict_types=1);

namespace Octavox\Core\Sound;

/** What goes into one result: its channels, and what each takes of those that come in. */
final readonly class Routing
{
    /** @param  string  $label  what the result is called beside others of the same source, such as `lav`; empty where it stands alone */
    public function __construct(public Layout $layout, public Mix $mix, public string $label = '') {}

    /** Whether what comes in goes out, in the same order, untouched. */
    public function isStraight(): bool
    {
        return $this->mix->isStraight() && $this->layout->count() === $this->mix->inputs();
    }

    /** As {@see ChannelMap::parse()} reads it. */
    public function text(): string
    {
        return implode(',', array_map(self::row(...), $this->mix->gains));
    }

    /** @param  list<float>  $row */
    private static function row(array $row): string
    {
        $terms = [];
        foreach ($row as $input => $gain) {
            if ($gain !== 0.0) {
                $decibels = round(20 * log10(abs($gain)), 2);
                $terms[] = ($gain < 0 ? '-' : '').($input + 1).(abs($decibels) < 0.005 ? '' : '@'.$decibels);
            }
        }

        return $terms === [] ? '0' : implode('+', $terms);
    }
}
