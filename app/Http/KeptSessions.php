<?php

declare(strict_types=1);

namespace App\Http;

use Illuminate\Session\FileSessionHandler;

/** Sessions in files. Where a drive is full what was said last is lost, and nothing else: the page comes all the same. */
final class KeptSessions extends FileSessionHandler
{
    /** @param  string  $sessionId */
    public function read($sessionId): string|false
    {
        try {
            return parent::read($sessionId);
        } catch (\ErrorException) {
            return '';
        }
    }

    /** @param  string  $sessionId */
    public function write($sessionId, $data): bool
    {
        $path = $this->path.'/'.$sessionId;
        $part = $path.'.'.getmypid().'.part';
        // What is there stays whole until the new one is.
        if (@file_put_contents($part, $data) !== strlen($data) || ! @rename($part, $path)) {
            @unlink($part);
        }

        return true;
    }

    /** Where there is no folder of sessions there are none to be cleared. */
    public function gc($lifetime): int
    {
        return is_dir($this->path) ? parent::gc($lifetime) : 0;
    }
}
