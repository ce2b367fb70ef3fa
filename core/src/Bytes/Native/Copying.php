<?php

declare(strict_types=1);

namespace Octavox\Core\Bytes\Native;

/** Bytes that the system copies from file to file by itself (Linux, copy_file_range(2)), without passing them through this process. */
final class Copying
{
    private ?Handle $target = null;

    private bool $opened = false;

    /** @var array<string, ?Handle> by path */
    private array $sources = [];

    /** @param  string  $path  of the file that receives them */
    public function __construct(private readonly string $path)
    {
    }

    /**
     * How many it has copied: fewer than wished where the files are of kinds between which it cannot, or where the disk is full.
     *
     * @param  int  $at  where they shall stand
     */
    public function copy(string $source, int $offset, int $at, int $count): int
    {
        $calls = System::calls();
        if (! $this->opened) {
            $this->opened = true;
            $this->target = Handle::open($this->path, Handle::WRITING);
        }
        if (! array_key_exists($source, $this->sources)) {
            $this->sources[$source] = Handle::open($source, Handle::READING);
        }
        $from = $this->sources[$source];
        [$begin, $place] = [$calls?->new('int64_t'), $calls?->new('int64_t')];
        if ($calls === null || $begin === null || $place === null || $from === null || $this->target === null) {
            return 0;
        }
        $begin->cdata = $offset;
        $place->cdata = $at;
        for ($done = 0; $done < $count; $done += $copied) {
            $copied = (int) $calls->copy_file_range($from->number, \FFI::addr($begin), $this->target->number, \FFI::addr($place), $count - $done, 0);
            if ($copied <= 0) {
                break;
            }
        }

        return $done;
    }
}
