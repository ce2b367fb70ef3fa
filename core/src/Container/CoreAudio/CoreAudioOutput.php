<?php

declare(strict_types=1);

namespace Octavox\Core\Container\CoreAudio;

use Octavox\Core\Bytes\ByteSink;
use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Bytes\FileUnwritable;
use Octavox\Core\Codec\RateControl;
use Octavox\Core\Container\Aiff\ChannelLayout;
use Octavox\Core\Container\Headed;
use Octavox\Core\Container\PcmOutput;
use Octavox\Core\Container\SoundWriter;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\SampleFormat;
use Octavox\Core\Media\SampleKind;
use Octavox\Core\Tag\TagField;
use Octavox\Core\Tag\TagRoom;
use Octavox\Core\Tag\Tags;

/** CAF with uncompressed samples, of any length. */
final class CoreAudioOutput extends PcmOutput
{
    public const INFORMATION = [
        'title' => TagField::Title, 'artist' => TagField::Artist, 'album' => TagField::Album, 'album artist' => TagField::AlbumArtist,
        'track number' => TagField::Track,
        'disc number' => TagField::Disc, 'year' => TagField::Year, 'genre' => TagField::Genre, 'comments' => TagField::Comment,
        'copyright' => TagField::Copyright,
        'composer' => TagField::Composer, 'lyricist' => TagField::Lyricist, 'isrc' => TagField::Isrc, 'lyrics' => TagField::Lyrics,
        'key signature' => TagField::Key, 'tempo' => TagField::Tempo,
    ];

    public function name(): string
    {
        return 'caf';
    }

    public function label(): string
    {
        return 'CAF';
    }

    public function extension(): string
    {
        return 'caf';
    }

    public function predict(AudioFormat $audio, RateControl $rateControl, int $samples, Tags $tags): int
    {
        return strlen(self::header($audio, $samples, $tags)) + $samples * $audio->frameBytes();
    }

    /**
     * @throws FileUnwritable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function writer(ByteSink $sink, AudioFormat $audio, Tags $tags, int $samples, int $skip, string $maker): SoundWriter
    {
        return new Headed($sink, self::header($audio, $samples, $tags));
    }

    /** Either order is allowed, so the source's own is kept. */
    protected function stored(SampleFormat $pcm): SampleFormat
    {
        return $pcm->kind === SampleKind::Unsigned ? SampleFormat::signed(8) : $pcm;
    }

    protected function tagRoom(): TagRoom
    {
        return new TagRoom(array_values(self::INFORMATION), several: false, cover: false);
    }

    protected function suits(): string
    {
        return 'uncompressed, of any length; for programs that ask for it';
    }

    private static function header(AudioFormat $audio, int $samples, Tags $tags): string
    {
        $format = match ($audio->pcm?->kind) {
            SampleKind::ALaw => 'alaw',
            SampleKind::MuLaw => 'ulaw',
            default => 'lpcm',
        };
        $flags = $format !== 'lpcm' ? 0 : ($audio->pcm?->kind === SampleKind::Float ? 1 : 0) | ($audio->pcm?->bigEndian === true ? 0 : 2);
        $strings = '';
        $count = 0;
        foreach (self::INFORMATION as $name => $field) {
            if ($tags->get($field) !== null) {
                $strings .= $name."\0".$tags->get($field)."\0";
                $count++;
            }
        }
        foreach ($tags->free() as $name => $values) {
            $strings .= $name."\0".implode('; ', $values)."\0";
            $count++;
        }

        return 'caff'.pack('n2', 1, 0)
            .self::chunk('desc',
                pack('E', $audio->rate).$format.pack('N5', $flags, $audio->frameBytes(), 1, $audio->channels(), $audio->bits()))
            .($audio->channels() > 2 && $audio->layout->mask() !== 0
                ? self::chunk('chan', pack('N3', ChannelLayout::BY_BITMAP, $audio->layout->mask(), 0)) : '')
            .($count === 0 ? '' : self::chunk('info', pack('N', $count).$strings))
            .'data'.pack('J', 4 + $samples * $audio->frameBytes()).pack('N', 0);
    }

    private static function chunk(string $name, string $body): string
    {
        return $name.pack('J', strlen($body)).$body;
    }
}
