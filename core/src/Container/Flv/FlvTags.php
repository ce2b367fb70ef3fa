<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Flv;

use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\ByteSource;
use Octavox\Core\Bytes\Cursor;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\Window;

/** Goes from tag to tag: E.4.1. */
final class FlvTags
{
    public const SOUND = 8;

    public const PICTURE = 9;

    private const SIGNATURE = 'FLV';

    private const HEADER = 11;

    private const HEAD = 6;

    public function __construct(private readonly ByteSource $bytes) {}

    /**
     * @return iterable<FlvTag> up to the last whole one
     *
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function all(): iterable
    {
        $size = $this->bytes->size();
        $window = new Window($this->bytes, $size, 512);
        $at = (new Cursor($window->read(5, 4), $this->bytes->name(), 5))->u32be() + 4;
        while ($at + self::HEADER <= $size) {
            if ($window->read($at, 3) === self::SIGNATURE) {
                // Another recording was joined: its header, and the size of no tag before it.
                $at += (new Cursor($window->read($at + 5, 4), $this->bytes->name(), $at + 5))->u32be() + 4;

                continue;
            }
            $cursor = new Cursor($window->read($at, self::HEADER), $this->bytes->name(), $at);
            $kind = $cursor->u8() & 0x1F;
            $length = $cursor->u24be();
            $time = $cursor->u24be() | $cursor->u8() << 24;
            $body = $at + self::HEADER;
            if ($body + $length > $size) {
                return;
            }
            yield new FlvTag($kind, $time, $body, $length, $window->read($body, min(self::HEAD, $length)));
            $at = $body + $length + 4;
        }
    }
}
