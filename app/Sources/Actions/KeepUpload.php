<?php

declare(strict_types=1);

namespace App\Sources\Actions;

use App\Sources\Models\Upload;
use App\Sources\Values\UploadLabel;

/** Keeps what is known of an upload while its bytes arrive. */
final class KeepUpload
{
    /** @return ?Upload null where no file can be begun for it */
    public function begin(UploadLabel $label, int $bytes, \DateTimeInterface $expiry): ?Upload
    {
        $upload = Upload::query()->create(['name' => $label->name, 'folder' => $label->folder, 'dropped' => $label->drop, 'bytes' => $bytes,
            'received' => 0, 'expires_at' => $expiry]);
        if (@file_put_contents($upload->path(), '') === false) {
            $upload->delete();

            return null;
        }

        return $upload;
    }

    /** @param  int  $received  bytes that have arrived */
    public function received(Upload $upload, int $received, \DateTimeInterface $expiry): void
    {
        $upload->update(['received' => $received, 'expires_at' => $expiry]);
    }
}
