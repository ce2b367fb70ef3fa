<?php

declare(strict_types=1);

namespace App\Http;

use App\Models\Result;
use Illuminate\Support\Collection;
use Octavox\Core\Bytes\Fence;
use Octavox\Core\Name\LegalName;
use Octavox\Core\Name\NumberedName;
use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\StreamedResponse;

/** Many results as one ZIP file that is written while it is sent: no second copy of them comes to be. */
final class Archive
{
    /**
     * @param  Collection<int, Result>  $results  whose files are there; what goes away meanwhile is left out
     * @param  string  $name  of the ZIP file, without extension
     * @param  array<string, string>  $texts  small files beside which all lie without folders, contents by name
     */
    public static function of(Collection $results, string $name, array $texts = []): StreamedResponse
    {
        return new StreamedResponse(function () use ($results, $texts): void {
            $zip = new ZipWriter(function (string $bytes): void {
                echo $bytes;
                flush();
            });
            $taken = [];
            foreach ($texts as $own => $text) {
                $handle = fopen('data:text/plain;base64,'.base64_encode($text), 'rb');
                $handle === false || $zip->add(self::free($own, $taken), $handle, strlen($text), time());
            }
            foreach ($results as $result) {
                $handle = @fopen((string) $result->path, 'rb');
                if ($handle === false || ! Fence::holds((string) $result->path, $handle)) {
                    continue;
                }
                $facts = fstat($handle);
                $name = $texts === [] ? $result->pathInOrder() : basename($result->pathInOrder());
                $zip->add(self::free($name, $taken), $handle, (int) ($facts['size'] ?? 0), (int) ($facts['mtime'] ?? 0));
                fclose($handle);
            }
            $zip->finish();
        }, 200, [
            'Content-Type' => 'application/zip', 'X-Accel-Buffering' => 'no', 'Cache-Control' => 'no-store',
            'Content-Disposition' => HeaderUtils::makeDisposition('attachment', LegalName::from($name).'.zip', self::plain($name).'.zip'),
        ]);
    }

    /** The name for those who only know plain letters. */
    public static function plain(string $name): string
    {
        return (string) preg_replace('/[^A-Za-z0-9 ._-]/', '-', mb_scrub($name));
    }

    /**
     * A name that no other file of the archive has.
     *
     * @param  array<string, true>  $taken
     */
    public static function free(string $wanted, array &$taken): string
    {
        for ($number = 1; isset($taken[mb_strtolower(NumberedName::of($wanted, $number))]); $number++);
        $name = NumberedName::of($wanted, $number);
        $taken[mb_strtolower($name)] = true;

        return $name;
    }
}
