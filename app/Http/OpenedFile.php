<?php

declare(strict_types=1);

namespace App\Http;

use Octavox\Core\Bytes\Fence;
use Symfony\Component\HttpFoundation\BinaryFileResponse;

/** Gives away, in ranges, a file that was opened and then judged: what a link leads to may change between a look and an opening. */
final class OpenedFile extends BinaryFileResponse
{
    private const BYTES_AT_ONCE = 1 << 18;

    /** @var resource */
    private $handle;

    /** @param  array<string, string>  $headers */
    public static function of(string $path, array $headers = []): self
    {
        $handle = is_file($path) ? @fopen($path, 'rb') : false;
        if ($handle === false || ! Fence::holds($path, $handle)) {
            abort(404);
        }
        $response = new self($path, 200, $headers, public: false);
        $response->handle = $handle;

        return $response;
    }

    public function sendContent(): static
    {
        if (! $this->isSuccessful() || $this->maxlen === 0) {
            return $this;
        }
        fseek($this->handle, $this->offset);
        $left = $this->maxlen < 0 ? PHP_INT_MAX : $this->maxlen;
        $reader = new SlowReader;
        do {
            $bytes = (string) fread($this->handle, min(self::BYTES_AT_ONCE, $left));
            $left -= strlen($bytes);
        } while ($bytes !== '' && $reader->write($bytes) && $left > 0);

        return $this;
    }
}
