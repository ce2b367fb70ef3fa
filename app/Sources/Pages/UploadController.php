<?php

declare(strict_types=1);

namespace App\Sources\Pages;

use App\Files\Folder;
use App\Settings\Queries\KeptFree;
use App\Sources\Actions\CompleteUpload;
use App\Sources\Actions\KeepUpload;
use App\Sources\Models\Upload;
use App\Sources\Values\UploadLabel;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\File;
use Symfony\Component\HttpKernel\Exception\HttpException;

/** Resumable uploads after the tus protocol 1.0.0: core, creation, termination, expiration. */
final class UploadController
{
    private const VERSION = '1.0.0';

    /** Bytes of a part that are written at once. */
    private const TOGETHER = 1 << 20;

    public function __construct(private readonly CompleteUpload $complete, private readonly KeptFree $room,
        private readonly KeepUpload $keep) {}

    public function abilities(): Response
    {
        return $this->answer(204, ['Tus-Version' => self::VERSION, 'Tus-Extension' => 'creation,termination,expiration',
            'Tus-Max-Size' => (string) config()->integer('octavox.largest_upload')]);
    }

    public function create(Request $request): Response
    {
        $length = (string) $request->headers->get('Upload-Length', '');
        if (! self::speaksTus($request)) {
            return $this->answer(412, ['Tus-Version' => self::VERSION]);
        }
        if (preg_match('/^\d{1,18}$/', $length) !== 1) {
            return $this->answer(400);
        }
        if ((int) $length > config('octavox.largest_upload')) {
            return $this->answer(413);
        }
        if (! $this->room->isRoomFor((int) $length, self::folder())) {
            return $this->answer(507);
        }
        $label = UploadLabel::parse((string) $request->headers->get('Upload-Metadata', ''));
        $upload = $this->keep->begin($label, (int) $length, self::expiry());
        if ($upload === null) {
            return $this->answer(507);
        }
        $headers = ['Location' => $request->url().'/'.$upload->id, 'Upload-Expires' => $upload->expires_at->toRfc7231String()];

        return $this->answer(201, $headers + $this->completed($upload));
    }

    public function offset(Upload $upload): Response
    {
        return $this->answer(200, ['Upload-Offset' => (string) $upload->received, 'Upload-Length' => (string) $upload->bytes,
            'Upload-Expires' => $upload->expires_at->toRfc7231String(), 'Cache-Control' => 'no-store'] + $this->completed($upload));
    }

    public function append(Request $request, Upload $upload): Response
    {
        if (! self::speaksTus($request)) {
            return $this->answer(412, ['Tus-Version' => self::VERSION]);
        }
        if ($request->header('Content-Type') !== 'application/offset+octet-stream') {
            return $this->answer(415);
        }
        $lock = @fopen($upload->path().'.lock', 'c');
        // Another connection may still be writing the same part after this one's predecessor broke off.
        if ($lock === false || ! flock($lock, LOCK_EX | LOCK_NB)) {
            return $this->answer(423);
        }
        $upload->refresh();
        if ($upload->source_id !== null || $request->header('Upload-Offset') !== (string) $upload->received) {
            return $this->answer(409);
        }
        $received = $this->store($request, $upload);
        if ($received === null) {
            return $this->answer(413);
        }
        [$received, $full] = $received;
        $this->keep->received($upload, $received, self::expiry());
        if ($full) {
            return $this->answer(507, ['Upload-Offset' => (string) $received]);
        }
        $headers = ['Upload-Offset' => (string) $received, 'Upload-Expires' => $upload->expires_at->toRfc7231String()]
            + $this->completed($upload);
        fclose($lock);
        if ($received === $upload->bytes) {
            File::delete($upload->path().'.lock');
        }

        return $this->answer(204, $headers);
    }

    /** @return array<string, string> which source the upload became, once all of it is there */
    private function completed(Upload $upload): array
    {
        $source = $upload->received === $upload->bytes ? $this->complete->complete($upload) : null;

        return $source === null ? [] : ['Octavox-Source' => (string) $source->id];
    }

    public function terminate(Upload $upload): Response
    {
        $upload->giveUp();

        return $this->answer(204);
    }

    /**
     * Writes the body behind what is there.
     *
     * @return ?array{int, bool} the new length, and whether the drive is full and no more of it is kept; null where it would be too long
     */
    private function store(Request $request, Upload $upload): ?array
    {
        // Never begun here: a file that is gone was moved or taken away.
        $file = @fopen($upload->path(), 'r+b');
        $body = $request->getContent(true);
        if ($file === false || ! is_resource($body) || (fstat($file)['size'] ?? 0) < $upload->received) {
            throw new HttpException(410);
        }
        // A part that broke off while it was written is written again from where the record says.
        ftruncate($file, max(0, $upload->received));
        fseek($file, $upload->received);
        $received = $upload->received;
        $full = false;
        while (! $full && ! feof($body) && ($part = fread($body, self::TOGETHER)) !== false && $part !== '') {
            if ($received + strlen($part) > $upload->bytes) {
                ftruncate($file, max(0, $upload->received));

                return null;
            }
            $written = (int) @fwrite($file, $part);
            $received += $written;
            $full = $written < strlen($part);
        }
        $full = ! @fflush($file) || $full;
        fclose($file);

        return [$received, $full];
    }

    private static function speaksTus(Request $request): bool
    {
        return $request->header('Tus-Resumable') === self::VERSION;
    }

    private static function expiry(): \DateTimeInterface
    {
        return now()->addHours(config()->integer('octavox.upload_hours'));
    }

    private static function folder(): string
    {
        $folder = config()->string('octavox.home').'/uploads';
        Folder::ready($folder);

        return $folder;
    }

    /** @param  array<string, string>  $headers */
    private function answer(int $status, array $headers = []): Response
    {
        return response('', $status, ['Tus-Resumable' => self::VERSION, ...$headers]);
    }
}
