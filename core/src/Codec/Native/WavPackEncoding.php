<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Native;

use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\Native\LibraryMissing;

/** One WavPack encoder of the WavPack library, without loss. */
final class WavPackEncoding
{
    /** wavpack.h: CONFIG_FAST_FLAG; none; CONFIG_HIGH_FLAG; CONFIG_HIGH_FLAG and CONFIG_VERY_HIGH_FLAG */
    private const LEVELS = [0x200, 0, 0x800, 0x1800];

    private readonly \FFI $library;

    private readonly \FFI\CData $context;

    private readonly \Closure $call;

    private readonly SampleRoom $numbers;

    private readonly bool $ready;

    /** @var list<string> */
    private array $blocks = [];

    /**
     * @param  int  $bits  8, 16 or 24
     * @param  int  $total  samples a channel that will come
     * @param  int  $level  how hard it tries, 0 to 3
     *
     * @throws LibraryMissing
     */
    public function __construct(int $rate, int $channels, private readonly int $bits, int $mask, int $total, int $level = 1)
    {
        $this->library = WavPackLibrary::open();
        $this->numbers = new SampleRoom;
        $this->call = function (?\FFI\CData $id, \FFI\CData $data, int $count): int {
            $this->blocks[] = \FFI::string(\FFI::cast('char*', $data), $count);

            return 1;
        };
        $this->context = $this->library->WavpackOpenFileOutput($this->call, null, null);
        $config = $this->library->new('CONFIG');
        $config->bits_per_sample = $bits;
        $config->bytes_per_sample = intdiv($bits, 8);
        $config->num_channels = $channels;
        $config->sample_rate = $rate;
        $config->channel_mask = $mask;
        $config->flags = self::LEVELS[$level] ?? 0;
        $this->ready = $this->library->WavpackSetConfiguration64($this->context, \FFI::addr($config), $total, null) !== 0
            && $this->library->WavpackPackInit($this->context) !== 0;
    }

    public function __destruct()
    {
        if (isset($this->context)) {
            $this->library->WavpackCloseFile($this->context);
        }
    }

    public function isReady(): bool
    {
        return $this->ready;
    }

    public function version(): string
    {
        return 'WavPack '.$this->library->WavpackGetLibraryVersionString();
    }

    /**
     * @return list<string> finished blocks
     *
     * @throws LibraryMissing
     */
    public function encode(Block $block): array
    {
        $this->library->WavpackPackSamples($this->context,
            $this->numbers->toNumbers($block->buffer, $block->first(), $block->samples(), $this->bits), $block->frames);

        return $this->taken();
    }

    /** @return list<string> */
    public function finish(): array
    {
        $this->library->WavpackFlushSamples($this->context);

        return $this->taken();
    }

    /** @return list<string> */
    private function taken(): array
    {
        $blocks = $this->blocks;
        $this->blocks = [];

        return $blocks;
    }
}
