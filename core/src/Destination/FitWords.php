<?php

declare(strict_types=1);

namespace Octavox\Core\Destination;

use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Tag\TagField;

/** The sentences in which a destination says what it refuses. */
final class FitWords
{
    /** @param  non-empty-list<string>  $wanted */
    public static function container(string $is, array $wanted): Rejection
    {
        return new Rejection(Rule::Container,
            sprintf('It is %s; what is accepted is %s.', strtoupper($is), self::listed(array_map(strtoupper(...), $wanted))),
            $wanted);
    }

    public static function picture(bool $has): Rejection
    {
        return new Rejection(Rule::Picture, $has ? 'It has a picture; only sound alone is accepted.'
            : 'It has no picture, and one is wanted.');
    }

    public static function nothingThere(): Rejection
    {
        return new Rejection(Rule::Sound,
            'None of its sound is there, though it is announced; copy the file again from where it came from.');
    }

    /** @param  non-empty-list<string>  $wanted */
    public static function codec(AudioFormat $is, array $wanted): Rejection
    {
        $labels = array_map(fn (string $codec): string => self::label($codec), $wanted);

        return new Rejection(Rule::Codec, sprintf('Its sound is %s; what is accepted is %s.', CodecModules::describe($is),
            self::listed($labels)),
            $wanted);
    }

    public static function rate(int $is, int $nearest): Rejection
    {
        return new Rejection(Rule::Rate,
            sprintf('Its sound has %s Hz, which is not accepted; the nearest that is, is %s Hz.', number_format($is),
                number_format($nearest)), [$nearest]);
    }

    public static function bitDepth(int $is, int $nearest): Rejection
    {
        return new Rejection(Rule::BitDepth,
            sprintf('Its samples have %d bits, which is not accepted; the nearest that is, is %d bits.', $is, $nearest),
            [$nearest]);
    }

    public static function channels(int $is, int $most): Rejection
    {
        return new Rejection(Rule::Channels, sprintf('Its sound has %d channels; at most %d are accepted.', $is, $most), [$most]);
    }

    /** @param  non-empty-list<string>  $wanted */
    public static function layout(string $is, array $wanted): Rejection
    {
        return new Rejection(Rule::Layout, sprintf('Its sound is %s; what is accepted is %s.', $is, self::listed($wanted)), $wanted);
    }

    public static function bitRate(float $is, ?int $least, ?int $most): Rejection
    {
        $isLow = $least !== null && $is < $least;

        return new Rejection(Rule::BitRate, sprintf('Its sound takes %.0f kbit/s; %s %d are accepted.', $is, $isLow ? 'at least'
            : 'at most',
            $isLow ? $least : $most), [$isLow ? $least : (int) $most]);
    }

    public static function rateMode(): Rejection
    {
        return new Rejection(Rule::RateMode, 'Its bit rate varies; only a constant one is accepted.', ['constant']);
    }

    public static function size(int $is, int $most): Rejection
    {
        return new Rejection(Rule::Size,
            sprintf('It takes %s bytes; at most %s are accepted.', number_format($is), number_format($most)), [$most]);
    }

    public static function duration(float $is, int $most): Rejection
    {
        return new Rejection(Rule::Duration,
            sprintf('It lasts %s seconds; at most %s are accepted.', number_format($is), number_format($most)), [$most]);
    }

    public static function nameLength(int $is, int $most): Rejection
    {
        return new Rejection(Rule::Name, sprintf('Its name takes %d bytes; at most %d are accepted.', $is, $most), [$most]);
    }

    public static function nameCharacters(): Rejection
    {
        return new Rejection(Rule::Name, 'Its name holds characters that are not accepted; letters and figures without accents are.');
    }

    public static function tag(TagField $field): Rejection
    {
        return new Rejection(Rule::Tags, sprintf('Its tags name no %s, and one is wanted.', strtolower(str_replace('_', ' ', $field
            ->value))));
    }

    public static function tagCharacters(string $fields): Rejection
    {
        return new Rejection(Rule::Tags, sprintf('Its tags hold emoji or control characters (in %s), which are not accepted.', $fields));
    }

    public static function cover(): Rejection
    {
        return new Rejection(Rule::Cover, 'It has no cover, and one is wanted.');
    }

    public static function index(): Rejection
    {
        return new Rejection(Rule::Index,
            'Its index stands at its end, so it does not play before all of it has arrived; one that begins with it is '
            .'wanted.');
    }

    public static function broadcast(): Rejection
    {
        return new Rejection(Rule::Broadcast, 'It does not hold what broadcasters say of a recording (a bext chunk), and that is wanted.');
    }

    public static function loudness(?float $is, int $most): Rejection
    {
        return new Rejection(Rule::Loudness, $is === null ? sprintf('Its loudness is not known; at most %d LUFS are accepted.', $most)
            : sprintf('Its loudness is %.1f LUFS; at most %d are accepted.', $is, $most), [$most]);
    }

    public static function noSound(): Rejection
    {
        return new Rejection(Rule::Sound, 'It has no sound at all.');
    }

    private static function label(string $codec): string
    {
        $known = Codec::tryFrom($codec);

        return $known === null ? $codec : CodecModules::of($known)->label();
    }

    /** @param  non-empty-list<string>  $words */
    private static function listed(array $words): string
    {
        $last = array_pop($words);

        return $words === [] ? $last : implode(', ', $words).' or '.$last;
    }
}
