<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Pcm;

use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\CodecNotDecodable;
use Octavox\Core\Codec\Decoder;
use Octavox\Core\Codec\Native\SampleFile;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Packet;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Media\SampleKind;
use Octavox\Core\Sound\Block;
use Octavox\Core\Sound\BlockTooLarge;
use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\LibraryMissing;
use Octavox\Core\Sound\Native\SampleConversion;

/** PCM of every kind, bit depth and byte order → sound. */
final class PcmDecoder implements Decoder
{
    /** Of a whole number that is decoded at once. */
    private const MOST_BITS = 32;

    /** As the samples lie in the file. */
    private readonly SampleFormat $stored;

    /** As they are decoded. */
    private readonly SampleFormat $pcm;

    private readonly ?SampleFile $file;

    private ?FloatBuffer $room = null;

    /**
     * @throws CodecNotDecodable
     * @throws LibraryMissing
     */
    public function __construct(private readonly AudioFormat $audio)
    {
        $this->stored = $audio->pcm ?? throw CodecNotDecodable::named(CodecModules::describe($audio));
        // Of wider samples the upper 32 bits: float32 holds 24 of them.
        $this->pcm = $this->isWide() ? SampleFormat::signed(self::MOST_BITS, $this->stored->bigEndian) : $this->stored;
        $this->file = $this->isDirect() ? null : SampleFile::reader(SampleFileFormat::code($this->pcm), $audio->channels());
    }

    /**
     * @throws BlockTooLarge
     * @throws LibraryMissing
     */
    public function decode(Packet $packet): Block
    {
        $samples = intdiv(strlen($packet->data), $this->audio->frameBytes()) * $this->audio->channels();
        if ($this->room === null || $this->room->capacity < $samples) {
            $this->room = new FloatBuffer($samples);
        }
        $bytes = strlen($packet->data) === $samples * $this->stored->bytes() ? $packet->data
            : substr($packet->data, 0, $samples * $this->stored->bytes());
        $bytes = $this->isWide() ? $this->upper($bytes) : $bytes;
        match (true) {
            $this->file !== null => $this->file->readFloats($bytes, $samples, $this->room, 0),
            $this->pcm->kind === SampleKind::Float => $this->room->put(0, $bytes),
            $this->pcm->bits === 16 => SampleConversion::get()->from16($bytes, $this->room, 0),
            default => SampleConversion::get()->from32($bytes, $this->room, 0),
        };

        return new Block($this->room, intdiv($samples, $this->audio->channels()), $this->audio->channels());
    }

    public function finish(): ?Block
    {
        return null;
    }

    private function isWide(): bool
    {
        return $this->stored->kind === SampleKind::Signed && $this->stored->bits > self::MOST_BITS;
    }

    private function upper(string $bytes): string
    {
        $kept = intdiv(self::MOST_BITS, 8);
        $dropped = $this->stored->bytes() - $kept;

        return (string) preg_replace($this->stored->bigEndian ? "/(.{{$kept}}).{{$dropped}}/s" : "/.{{$dropped}}(.{{$kept}})/s", '$1',
            $bytes);
    }

    /** Sample formats that are this machine's own, for which one vector call is enough. */
    private function isDirect(): bool
    {
        return ! $this->pcm->bigEndian && (
            $this->pcm->kind === SampleKind::Float && $this->pcm->bits === 32
            || $this->pcm->kind === SampleKind::Signed && in_array($this->pcm->bits, [16, 32], true)
        );
    }
}
