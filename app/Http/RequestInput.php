<?php

declare(strict_types=1);

namespace App\Http;

use Illuminate\Http\Request;
use Illuminate\Http\UploadedFile;

/**
 * What a request asks for, whatever was put there: lists where a text belongs are no text, numbers beyond all measure are the nearest that
 * is one.
 */
final class RequestInput
{
    private const MOST = 1 << 52;

    private const MOST_DOCUMENT = 1 << 18;

    public static function text(Request $request, string $name): string
    {
        $value = $request->query($name);

        return is_string($value) ? mb_scrub(mb_strcut($value, 0, 4000)) : '';
    }

    /** The same of what was sent, by a form or by a script. */
    public static function sent(Request $request, string $name): string
    {
        $value = $request->request->all()[$name] ?? null;

        return is_scalar($value) ? mb_scrub(mb_strcut((string) $value, 0, 40_000)) : '';
    }

    /** @return array<string, string> everything that was sent and is a text, to be shown again where it was refused */
    public static function again(Request $request): array
    {
        return array_map(strval(...), array_filter($request->request->all(), is_scalar(...)));
    }

    /**
     * The JSON of a file that was sent.
     *
     * @return array<array-key, mixed> nothing where it is none, or larger than any such document
     */
    public static function document(Request $request, string $name): array
    {
        $file = $request->file($name);
        $json = $file instanceof UploadedFile && $file->isValid() && $file->getSize() <= self::MOST_DOCUMENT ? $file->get() : '';
        $document = json_decode((string) $json, true, 16);

        return is_array($document) ? $document : [];
    }

    public static function number(Request $request, string $name, int $default = 0): int
    {
        $value = $request->query($name);
        if (! is_string($value) || preg_match('/^-?\d{1,400}$/', $value) !== 1) {
            return $default;
        }

        return (int) max(-self::MOST, min(self::MOST, (float) $value));
    }

    public static function real(Request $request, string $name, float $default): float
    {
        $value = $request->query($name);

        return is_string($value) && is_numeric($value) && is_finite((float) $value) ? (float) $value : $default;
    }
}
