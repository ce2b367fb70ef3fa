<?php

declare(strict_types=1);

namespace Octavox\Core\Sound;

/**
 * Which channels go where: one routing for each result.
 *
 * Written as one of the words below, or channel by channel: results are separated by `/`, the channels of a result by `,`, what is added
 * up in a channel by `+`; channels that come in are counted from 1, a gain in decibels stands behind `@`, a minus in front flips the
 * polarity, `0` is silence. So `1/2` are two mono files, `2,1` swaps, `1@-6+2@-6` is mono.
 */
final readonly class ChannelMap
{
    /** One-press layouts: the word, what a person calls it, channels that it needs (0: any number). */
    public const WORDS = [
        'asis' => ['As it is', 0], 'split' => ['One file each', 0], 'mono' => ['Mono of all', 0], 'stereo' => ['Stereo of all', 0],
        'left' => ['Left alone', 2], 'right' => ['Right alone', 2],
        'left-both' => ['Left on both', 2], 'right-both' => ['Right on both', 2], 'swap' => ['Swap sides', 2], '5.1' => ['Six as 5.1', 6],
        '7.1' => ['Eight as 7.1', 8],
    ];

    /** dB; louder or softer is taken for a slip of the hand. */
    private const MOST_DECIBELS = 60.0;

    /** @param  non-empty-list<Routing>  $results */
    private function __construct(public array $results) {}

    /**
     * @param  list<string>  $labels  of the channels that come in, such as `lav` and `boom`
     *
     * @throws InvalidChannelMap
     * @throws NoStandardMix
     */
    public static function parse(string $text, Layout $from, array $labels = []): self
    {
        $text = strtolower(trim($text));
        $needed = self::WORDS[$text][1] ?? 0;
        if ($needed > 0 && ($needed === 2 ? $from->count() < 2 : $from->count() !== $needed)) {
            throw InvalidChannelMap::needs($text, $needed, $from->count());
        }
        $count = $from->count();
        $label = fn (int $channel): string => trim($labels[$channel] ?? '');
        $pick = fn (Layout $layout, int ...$places): self => new self([new Routing($layout, Mix::routed(array_values($places), $count),
            count($places) === 1 ? $label($places[0]) : '')]);

        return match ($text) {
            '', 'asis' => new self([new Routing($from, Mix::between($from, $from), $count === 1 ? $label(0) : '')]),
            'split' => new self(array_map(fn (Channel $channel, int $index): Routing => new Routing(Layout::mono(),
                Mix::routed([$index], $count), $label($index) !== '' ? $label($index) : $from->names()[$index]), $from->channels,
                array_keys($from->channels))),
            'mono' => new self([new Routing(Layout::mono(), Mix::between($from, Layout::mono()))]),
            'stereo' => new self([new Routing(Layout::stereo(), Mix::between($from, Layout::stereo()))]),
            'left' => $pick(Layout::mono(), 0),
            'right' => $pick(Layout::mono(), 1),
            'left-both' => $pick(Layout::stereo(), 0, 0),
            'right-both' => $pick(Layout::stereo(), 1, 1),
            'swap' => $pick(Layout::stereo(), 1, 0),
            '5.1' => $pick(Layout::fiveOne(), 0, 1, 2, 3, 4, 5),
            '7.1' => $pick(Layout::sevenOne(), 0, 1, 2, 3, 4, 5, 6, 7),
            default => self::written($text, $from, $labels),
        };
    }

    /** As {@see self::parse()} reads it, channel by channel. */
    public function text(): string
    {
        return implode('/', array_map(fn (Routing $result): string => $result->text(), $this->results));
    }

    /**
     * @param  list<string>  $labels
     *
     * @throws InvalidChannelMap
     */
    private static function written(string $text, Layout $from, array $labels): self
    {
        $files = explode('/', $text);
        $results = [];
        foreach ($files as $number => $file) {
            $rows = array_map(fn (string $row): array => self::row($row, $text, $from->count()), explode(',', $file));
            if (count($rows) > Layout::MOST_CHANNELS || count($files) > Layout::MOST_CHANNELS) {
                throw InvalidChannelMap::unreadable($text);
            }
            $heard = count($rows) === 1 ? array_keys(array_filter($rows[0], fn (float $gain): bool => $gain !== 0.0)) : [];
            $label = count($heard) === 1 ? trim($labels[$heard[0]] ?? '') : '';
            $label = $label === '' && count($heard) === 1 && count($files) > 1 ? $from->names()[$heard[0]] : $label;
            $results[] = new Routing(self::layout(count($rows), $from), Mix::ofGains($rows),
                $label === '' && count($files) > 1 ? (string) ($number + 1) : $label);
        }

        return new self($results);
    }

    /**
     * @return non-empty-list<float>
     *
     * @throws InvalidChannelMap
     */
    private static function row(string $row, string $text, int $count): array
    {
        $gains = array_fill(0, max(1, $count), 0.0);
        if (trim($row) === '0') {
            return $gains;
        }
        foreach (explode('+', str_replace('+-', '+~', $row)) as $term) {
            if (preg_match('/^\s*([-~]?)(\d{1,2})(?:@([-+]?\d{1,3}(?:\.\d{1,3})?))?\s*$/', str_replace('@~', '@-', $term), $parts) !== 1) {
                throw InvalidChannelMap::unreadable($text);
            }
            $channel = (int) $parts[2];
            if ($channel < 1 || $channel > $count) {
                throw InvalidChannelMap::noChannel($channel, $count);
            }
            $decibels = (float) ($parts[3] ?? 0.0);
            if (abs($decibels) > self::MOST_DECIBELS) {
                throw InvalidChannelMap::gain($decibels);
            }
            $gains[$channel - 1] += ($parts[1] === '' ? 1 : -1) * ($decibels === 0.0 ? 1.0 : 10 ** ($decibels / 20));
        }

        return array_values($gains);
    }

    private static function layout(int $count, Layout $from): Layout
    {
        return match (true) {
            $count === $from->count() && $count > 2 => $from,
            $count === 6 => Layout::fiveOne(),
            $count === 8 => Layout::sevenOne(),
            default => Layout::undeclared($count),
        };
    }
}
