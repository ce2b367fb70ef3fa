<?php

declare(strict_types=1);

namespace App\Files;

use Illuminate\Support\Facades\File;
use Octavox\Core\Make\CoverUnusable;
use Octavox\Core\Tag\Cover;
use Symfony\Component\Process\Exception\RuntimeException;
use Symfony\Component\Process\Process;

/** Takes a picture in, to be a cover: made smaller by a process of its own, which may die of it. */
final class KeepPicture
{
    /** Pixels of the longer side that a cover can be made to have. */
    public const SIDES = [600, 1400, 3000];

    private const SECONDS = 30;

    /**
     * @param  string  $path  of the file that was brought in
     * @param  int  $side  pixels that the longer side may have at most; 0 leaves a JPEG or PNG as it is
     * @return string the name by which {@see Pictures} finds it
     *
     * @throws CoverUnusable
     */
    public function keep(string $path, int $side): string
    {
        $size = (int) @filesize($path);
        if ($size > Cover::MOST_BYTES) {
            throw CoverUnusable::large($path, $size);
        }
        $own = $side === 0 ? Cover::recognise((string) file_get_contents($path)) : null;
        $bytes = $own->bytes ?? $this->shrunk($path, $side === 0 ? max(self::SIDES) : $side);
        $name = hash('sha256', $bytes).($own?->type === 'image/png' ? '.png' : '.jpg');
        Folder::ready(Pictures::folder());
        if (! is_file(Pictures::folder().'/'.$name)) {
            File::replace(Pictures::folder().'/'.$name, $bytes);
        }

        return $name;
    }

    /** @throws CoverUnusable */
    private function shrunk(string $path, int $side): string
    {
        $folder = (string) ini_get('extension_dir');
        $process = new Process([PHP_BINARY, '-n', '-d', "extension_dir=$folder", '-d', 'extension=gd', '-d', 'extension=exif', '-d',
            'memory_limit=512M', '-d', 'display_errors=0', base_path('bin/cover.php'), $path, (string) $side], timeout: self::SECONDS);
        try {
            $process->run();
        } catch (RuntimeException) {
            throw CoverUnusable::picture($path);
        }
        $bytes = $process->getOutput();

        return $process->isSuccessful() && Cover::recognise($bytes) !== null ? $bytes : throw CoverUnusable::picture($path);
    }
}
