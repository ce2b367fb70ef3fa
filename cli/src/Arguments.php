<?php

declare(strict_types=1);

namespace Octavox\Cli;

/** What was written after the command: paths, options with a value, switches. */
final readonly class Arguments
{
    /**
     * @param  list<string>  $paths
     * @param  array<string, string>  $options
     * @param  list<string>  $switches
     */
    private function __construct(public array $paths, private array $options, private array $switches) {}

    /**
     * @param  list<string>  $words
     * @param  list<string>  $options  that take a value, without dashes
     * @param  list<string>  $switches
     *
     * @throws Usage
     */
    public static function parse(array $words, array $options, array $switches): self
    {
        $paths = [];
        $found = [];
        $on = [];
        while (($word = array_shift($words)) !== null) {
            if ($word === '--') {
                $paths = [...$paths, ...$words];
                break;
            }
            if (! str_starts_with($word, '--')) {
                $paths[] = $word;

                continue;
            }
            [$name, $value] = [...explode('=', substr($word, 2), 2), null];
            if (in_array($name, $switches, true) && $value === null) {
                $on[] = (string) $name;
            } elseif (in_array($name, $options, true)) {
                $found[(string) $name] = $value ?? array_shift($words) ?? throw Usage::missing('The value of '.$word);
            } else {
                throw Usage::unknown($word);
            }
        }

        return new self($paths, $found, $on);
    }

    /** @return array<string, mixed> all but the paths */
    public function wishes(): array
    {
        return ['options' => $this->options, 'switches' => array_values(array_diff($this->switches, ['json', 'once', 'dry-run', 'plan']))];
    }

    public function has(string $switch): bool
    {
        return in_array($switch, $this->switches, true);
    }

    public function text(string $option): ?string
    {
        return $this->options[$option] ?? null;
    }

    /** @throws Usage */
    public function number(string $option): ?int
    {
        $value = $this->options[$option] ?? null;
        if ($value === null) {
            return null;
        }

        return preg_match('/^\d{1,9}$/', $value) === 1 ? (int) $value : throw Usage::value('--'.$option, $value, 'a whole number');
    }

    /**
     * @param  list<string>  $possible
     *
     * @throws Usage
     */
    public function choice(string $option, array $possible): ?string
    {
        $value = $this->options[$option] ?? null;

        return $value === null || in_array($value, $possible, true) ? $value
            : throw Usage::value('--'.$option, $value, implode(', ', $possible));
    }
}
