<?php

declare(strict_types=1);

namespace App\Files;

use Octavox\Core\Failure;

/** A source could not be copied safely, so that nothing was made of it. */
final class CopyFailed extends Failure
{
    private string $word = 'copy-failed';

    public static function unreadable(string $path): self
    {
        return new self('The source cannot be read, so it was not copied and nothing was made of it; check that its drive is there.',
            $path);
    }

    public static function unwritable(string $folder): self
    {
        return new self('No safe copy could be put into '.$folder.', so nothing was made; check who owns that folder.', $folder);
    }

    public static function differs(string $path, string $folder): self
    {
        return new self('The copy in '.$folder.' did not read back as the source was read, so nothing was made; check both drives before '
            .'you try again.', $path);
    }

    public static function disc(string $path): self
    {
        return new self('This source is a title of a disc, of which no safe copy is made: the disc itself is one. Copy its image or folder '
            .'by hand, or order without safe copies.', $path);
    }

    public static function sheet(string $path): self
    {
        return new self('This source is a sheet whose sound lies in other files, of which no safe copy is made; copy its folder by hand, '
            .'and order it without. Nothing was made.', $path);
    }

    /** It is tried again by itself once there is room. */
    public static function noRoom(string $folder): self
    {
        $failed = new self('There is no room for the safe copy in '.$folder.'; free some space. Nothing was made.', $folder);
        $failed->word = 'no-space';

        return $failed;
    }

    public function code(): string
    {
        return $this->word;
    }
}
