<?php

declare(strict_types=1);

namespace App\Api;

use App\Http\Problem;
use Illuminate\Http\Exceptions\HttpResponseException;
use Illuminate\Http\Request;

/** The JSON that a script sends. */
final class Body
{
    private const MOST_BYTES = 4_000_000;

    private const DEEPEST = 24;

    /**
     * @return array<string, mixed>
     *
     * @throws HttpResponseException a problem, where it is no JSON object
     */
    public static function read(Request $request): array
    {
        $text = $request->getContent();
        if (strlen($text) > self::MOST_BYTES) {
            Problem::throw(413, 'too-long', 'The document that was sent is longer than any that is taken here; nothing was done.');
        }
        $body = json_decode($text, true, self::DEEPEST);
        if (! is_array($body) || $body !== [] && array_is_list($body)) {
            Problem::throw(400, 'no-document', 'A JSON object is expected as the body of this request; nothing was done.');
        }

        return array_combine(array_map(strval(...), array_keys($body)), $body);
    }

    /**
     * @param  array<string, mixed>  $body
     *
     * @throws HttpResponseException a problem, where something else than a text stands there
     */
    public static function text(array $body, string $name, string $else = ''): string
    {
        $value = $body[$name] ?? $else;
        if (! is_string($value) || ! mb_check_encoding($value, 'UTF-8')) {
            Problem::throw(422, 'invalid', sprintf('“%s” is a text; nothing was done.', $name), ['pointer' => '/'.$name]);
        }

        return $value;
    }
}
