<?php

declare(strict_types=1);

namespace Octavox\Core\Codec\Native;

use Octavox\Core\Sound\Native\FloatBuffer;
use Octavox\Core\Sound\Native\Library;
use Octavox\Core\Sound\Native\LibraryMissing;
use Octavox\Core\Sound\Native\SampleConversion;

/** One AAC-LC encoder of the VisualOn library (voAAC.h); mono or stereo, constant rate. */
final class VoAac
{
    /** voAAC.h: VO_PID_AAC_ENCPARAM */
    private const PARAMETERS = 0x42211040;

    private const FRAME = 1024;

    private readonly \FFI\CData $calls;

    private readonly \FFI\CData $handle;

    private readonly \FFI\CData $memory;

    private readonly \FFI\CData $pcm;

    private readonly \FFI\CData $out;

    private readonly \FFI\CData $in;

    private readonly \FFI\CData $packet;

    private readonly \FFI\CData $info;

    private readonly bool $ready;

    /** @throws LibraryMissing */
    public function __construct(int $rate, private readonly int $channels, int $kbps)
    {
        // The library's 32-bit names are C longs, eight bytes here; its output facts are not used, but need their room.
        $library = Library::open('
            typedef struct { unsigned char *Buffer; uint64_t Length; int64_t Time; } BUFFER;
            typedef struct { int64_t fields[8]; } OUTPUT;
            typedef struct { int sampleRate; int bitRate; short nChannels; short adtsUsed; } PARAM;
            typedef struct { void *Alloc, *Free, *Set, *Copy, *Check, *Compare, *Move; } MEMORY;
            typedef struct { int flag; void *data; unsigned int r1, r2; } USER;
            typedef struct {
                unsigned int (*Init)(void **h, int type, USER *user);
                unsigned int (*SetInputData)(void *h, BUFFER *in);
                unsigned int (*GetOutputData)(void *h, BUFFER *out, OUTPUT *info);
                unsigned int (*SetParam)(void *h, int id, void *data);
                unsigned int (*GetParam)(void *h, int id, void *data);
                unsigned int (*Uninit)(void *h);
            } CALLS;
            int voGetAACEncAPI(CALLS *calls);
            unsigned int cmnMemAlloc(int id, void *info);
            unsigned int cmnMemFree(int id, void *at);
            unsigned int cmnMemSet(int id, void *at, unsigned char value, unsigned int size);
            unsigned int cmnMemCopy(int id, void *to, void *from, unsigned int size);
            unsigned int cmnMemCheck(int id, void *at, unsigned int size);
        ', ['libvo-aacenc.so.0'], 'libvo-aacenc0');
        $this->calls = $library->new('CALLS');
        $library->voGetAACEncAPI(\FFI::addr($this->calls));
        $this->memory = $library->new('MEMORY');
        $this->memory->Alloc = \FFI::cast('void*', $library->cmnMemAlloc);
        $this->memory->Free = \FFI::cast('void*', $library->cmnMemFree);
        $this->memory->Set = \FFI::cast('void*', $library->cmnMemSet);
        $this->memory->Copy = \FFI::cast('void*', $library->cmnMemCopy);
        $this->memory->Check = \FFI::cast('void*', $library->cmnMemCheck);
        $user = $library->new('USER');
        $user->flag = 0;
        $user->data = \FFI::cast('void*', \FFI::addr($this->memory));
        $handle = $library->new('void*');
        $begun = ($this->calls->Init)(\FFI::addr($handle), 0, \FFI::addr($user)) === 0;
        $this->handle = $handle;
        $parameters = $library->new('PARAM');
        $parameters->sampleRate = $rate;
        $parameters->bitRate = $kbps * 1000;
        $parameters->nChannels = $channels;
        $parameters->adtsUsed = 0;
        $this->ready = $begun && ($this->calls->SetParam)($handle, self::PARAMETERS, \FFI::cast('void*', \FFI::addr($parameters))) === 0;
        $this->pcm = \FFI::new('char['.(2 * self::FRAME * $channels).']');
        $this->out = \FFI::new('unsigned char[20480]');
        $this->in = $library->new('BUFFER');
        $this->packet = $library->new('BUFFER');
        $this->info = $library->new('OUTPUT');
    }

    public function __destruct()
    {
        if (isset($this->handle)) {
            ($this->calls->Uninit)($this->handle);
        }
    }

    public function isReady(): bool
    {
        return $this->ready;
    }

    /**
     * Encodes exactly 1024 frames from sample $offset on; gives one access unit, or an empty string where it failed.
     *
     * @throws LibraryMissing
     */
    public function encode(FloatBuffer $from, int $offset): string
    {
        SampleConversion::get()->to16($from, $offset, self::FRAME * $this->channels, $this->pcm);
        $this->in->Buffer = \FFI::cast('unsigned char*', \FFI::addr($this->pcm[0]));
        $this->in->Length = 2 * self::FRAME * $this->channels;
        ($this->calls->SetInputData)($this->handle, \FFI::addr($this->in));
        $this->packet->Buffer = \FFI::cast('unsigned char*', \FFI::addr($this->out[0]));
        $this->packet->Length = 20480;
        $status = ($this->calls->GetOutputData)($this->handle, \FFI::addr($this->packet), \FFI::addr($this->info));

        return $status === 0 ? \FFI::string($this->out, $this->packet->Length) : '';
    }
}
