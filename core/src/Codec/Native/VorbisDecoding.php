<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Native;

use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\Interleaving;
use Octavox\Core\Sound\Native\LibraryMissing;

/** One Vorbis decoder of the Vorbis library. */
final class VorbisDecoding
{
    private readonly \FFI $library;

    private readonly \FFI\CData $info;

    private readonly \FFI\CData $comment;

    private readonly \FFI\CData $state;

    private readonly \FFI\CData $block;

    private readonly \FFI\CData $packet;

    private readonly \FFI\CData $pcm;

    private ?\FFI\CData $bytes = null;

    private int $room = 0;

    private int $number = 0;

    private readonly bool $ready;

    /**
     * @param  list<string>  $headers  the three set-up packets
     *
     * @throws LibraryMissing
     */
    public function __construct(array $headers, private readonly int $channels)
    {
        $this->library = VorbisLibrary::open();
        $this->info = $this->library->new('STATE');
        $this->comment = $this->library->new('STATE');
        $this->state = $this->library->new('STATE');
        $this->block = $this->library->new('STATE');
        $this->packet = $this->library->new('PACKET');
        $this->pcm = $this->library->new('float**[1]');
        $this->library->vorbis_info_init(\FFI::addr($this->info));
        $this->library->vorbis_comment_init(\FFI::addr($this->comment));
        $ready = true;
        foreach ($headers as $header) {
            $this->set($header, $this->number === 0);
            $ready = $ready && $this->library->vorbis_synthesis_headerin(\FFI::addr($this->info), \FFI::addr($this->comment),
                \FFI::addr($this->packet)) === 0;
        }
        $ready = $ready && $this->library->vorbis_synthesis_init(\FFI::addr($this->state), \FFI::addr($this->info)) === 0;
        $this->ready = $ready && $this->library->vorbis_block_init(\FFI::addr($this->state), \FFI::addr($this->block)) === 0;
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

    /** Takes a packet; false where it is damaged. */
    public function take(string $data): bool
    {
        $this->set($data, false);

        return $this->library->vorbis_synthesis(\FFI::addr($this->block), \FFI::addr($this->packet)) === 0
            && $this->library->vorbis_synthesis_blockin(\FFI::addr($this->state), \FFI::addr($this->block)) === 0;
    }

    /**
     * Gives what is decoded, interleaved, into $room from frame $at on; the number of frames.
     *
     * @throws LibraryMissing
     */
    public function give(FloatBuffer $room, int $at): int
    {
        $given = 0;
        while (($count = (int) $this->library->vorbis_synthesis_pcmout(\FFI::addr($this->state), \FFI::addr($this->pcm[0]))) > 0) {
            $count = min($count, intdiv($room->capacity, $this->channels) - $at - $given);
            if ($count < 1) {
                break;
            }
            Interleaving::get()->join(array_map(fn (int $channel): \FFI\CData => $this->pcm[0][$channel], range(0, $this->channels - 1)),
                $room, ($at + $given) * $this->channels, $count);
            $this->library->vorbis_synthesis_read(\FFI::addr($this->state), $count);
            $given += $count;
        }

        return $given;
    }

    private function set(string $data, bool $first): void
    {
        $length = strlen($data);
        if ($this->bytes === null || $length > $this->room) {
            $this->room = max(65_536, $length);
            $this->bytes = \FFI::new('char['.$this->room.']');
        }
        \FFI::memcpy($this->bytes, $data, $length);
        $this->packet->packet = \FFI::cast('char*', \FFI::addr($this->bytes[0]));
        $this->packet->bytes = $length;
        $this->packet->b_o_s = $first ? 1 : 0;
        $this->packet->e_o_s = 0;
        $this->packet->granule = -1;
        $this->packet->number = $this->number++;
    }
}
