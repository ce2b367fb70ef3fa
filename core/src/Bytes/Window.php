<?php

declare(strict_types=1);

namespace Octavox\Core\Bytes;

/**
 * Reads a stretch of a source in order through one window of memory,
 * so that walking a table or a run of packets costs few reads and little memory.
 */
final class Window
{
    private string $held = '';

    private int $heldAt = 0;

    /** @param  int  $span how many bytes to fetch at once */
    public function __construct(private readonly ByteSource $source, private readonly int $limit, private readonly int $span = 65536) {}

    /**
     * Exactly $length bytes from $offset; cheap when offsets rise in small steps.
     *
     * @throws BytesMissing when the stretch ends before
     * @throws FileUnreadable
     */
    public function read(int $offset, int $length): string
    {
        $within = $offset - $this->heldAt;
        if ($within < 0 || $within + $length > strlen($this->held)) {
            if ($offset < 0 || $length < 0 || $offset > $this->limit - $length) {
                throw BytesMissing::at($this->source->name(), $offset, $length, $this->limit);
            }
            if ($length > $this->span) {
                return $this->source->read($offset, $length);
            }
            $this->held = $this->source->read($offset, min($this->span, $this->limit - $offset));
            $this->heldAt = $offset;
            $within = 0;
        }

        return substr($this->held, $within, $length);
    }
}
