<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Native;

use Octavox\Core\Codec\RateControl;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\Native\Interleaving;
use Octavox\Core\Sound\Native\LibraryMissing;

/** One Vorbis encoder of the Vorbis library. */
final class VorbisEncoding
{
    /** OV_ECTL_RATEMANAGE2_SET: without an argument the bit rate is only aimed at */
    private const RATE_MANAGEMENT = 0x15;

    /** OV_ECTL_COUPLING_SET: whether channels are coded together */
    private const COUPLING = 0x41;

    private readonly \FFI $library;

    private readonly \FFI\CData $info;

    private readonly \FFI\CData $comment;

    private readonly \FFI\CData $state;

    private readonly \FFI\CData $block;

    private readonly \FFI\CData $packet;

    private readonly bool $ready;

    /**
     * @param  bool  $couples  whether channels are coded by what they have in common
     *
     * @throws LibraryMissing
     */
    public function __construct(int $rate, private readonly int $channels, RateControl $rateControl, bool $couples = true)
    {
        $this->library = VorbisLibrary::open();
        $this->info = $this->library->new('STATE');
        $this->comment = $this->library->new('STATE');
        $this->state = $this->library->new('STATE');
        $this->block = $this->library->new('STATE');
        $this->packet = $this->library->new('PACKET');
        $this->library->vorbis_info_init(\FFI::addr($this->info));
        $this->library->vorbis_comment_init(\FFI::addr($this->comment));
        // From 1.0, the finest, down to 0.1
        $status = $rateControl->quality !== null
            ? $this->library->vorbis_encode_setup_vbr(\FFI::addr($this->info), $channels, $rate, 1.0 - 0.1 * $rateControl->quality)
            : $this->library->vorbis_encode_setup_managed(\FFI::addr($this->info), $channels, $rate, -1, $rateControl->kbps * 1000, -1);
        if ($status === 0 && $rateControl->quality === null) {
            $this->library->vorbis_encode_ctl(\FFI::addr($this->info), self::RATE_MANAGEMENT, null);
        }
        if ($status === 0 && ! $couples) {
            $off = \FFI::new('int');
            $this->library->vorbis_encode_ctl(\FFI::addr($this->info), self::COUPLING, \FFI::addr($off));
        }
        $this->ready = $status === 0 && $this->library->vorbis_encode_setup_init(\FFI::addr($this->info)) === 0
            && $this->library->vorbis_analysis_init(\FFI::addr($this->state), \FFI::addr($this->info)) === 0
            && $this->library->vorbis_block_init(\FFI::addr($this->state), \FFI::addr($this->block)) === 0;
    }

    public function __destruct()
    {
        if (! isset($this->info)) {
            return;
        }
        if (isset($this->ready) && $this->ready) {
            $this->library->vorbis_block_clear(\FFI::addr($this->block));
            $this->library->vorbis_dsp_clear(\FFI::addr($this->state));
        }
        $this->library->vorbis_comment_clear(\FFI::addr($this->comment));
        $this->library->vorbis_info_clear(\FFI::addr($this->info));
    }

    public function isReady(): bool
    {
        return $this->ready;
    }

    /** @return list<string> the three set-up packets */
    public function headers(): array
    {
        $packets = array_map(fn (): \FFI\CData => $this->library->new('PACKET'), [0, 1, 2]);
        $this->library->vorbis_analysis_headerout(\FFI::addr($this->state), \FFI::addr($this->comment), \FFI::addr($packets[0]),
            \FFI::addr($packets[1]), \FFI::addr($packets[2]));

        return array_map(fn (\FFI\CData $packet): string => \FFI::string($packet->packet, $packet->bytes), $packets);
    }

    /**
     * @return list<string> packets
     *
     * @throws LibraryMissing
     */
    public function encode(Block $block): array
    {
        $buffer = $this->library->vorbis_analysis_buffer(\FFI::addr($this->state), $block->frames);
        Interleaving::get()->part($block->buffer, $block->first(),
            array_map(fn (int $channel): \FFI\CData => $buffer[$channel], range(0, $this->channels - 1)), $block->frames);
        $this->library->vorbis_analysis_wrote(\FFI::addr($this->state), $block->frames);

        return $this->packets();
    }

    /** @return list<string> */
    public function finish(): array
    {
        $this->library->vorbis_analysis_wrote(\FFI::addr($this->state), 0);

        return $this->packets();
    }

    public function version(): string
    {
        return (string) $this->library->vorbis_version_string();
    }

    /** @return list<string> */
    private function packets(): array
    {
        $packets = [];
        while ($this->library->vorbis_analysis_blockout(\FFI::addr($this->state), \FFI::addr($this->block)) === 1) {
            $this->library->vorbis_analysis(\FFI::addr($this->block), null);
            $this->library->vorbis_bitrate_addblock(\FFI::addr($this->block));
            while ($this->library->vorbis_bitrate_flushpacket(\FFI::addr($this->state), \FFI::addr($this->packet)) === 1) {
                $packets[] = \FFI::string($this->packet->packet, $this->packet->bytes);
            }
        }

        return $packets;
    }
}
