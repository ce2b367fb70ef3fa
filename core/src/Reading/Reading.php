<?php

declare(strict_types=1);

namespace Octavox\Core\Reading;

use Octavox\Core\Container\Raw\HeaderlessFormat;
use Octavox\Core\Json\Fields;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Severity;
use Octavox\Core\Media\Track;
use Octavox\Core\Media\TrackKind;
use Octavox\Core\Tag\Chapter;
use Octavox\Core\Tag\Tags;

/** All facts about a source, and the findings about it. */
final readonly class Reading
{
    /**
     * @param  list<Track>  $tracks
     * @param  list<Finding>  $findings
     * @param  list<Chapter>  $chapters
     * @param  string  $cover  its media type, empty where there is none
     * @param  ?HeaderlessFormat  $stated  what somebody said that it holds, where it has no header
     */
    public function __construct(
        public string $path,
        public string $container,
        public int $bytes,
        public float $seconds,
        public array $tracks,
        public Tags $tags,
        public array $findings,
        public int $bytesRead,
        public ?HeaderlessFormat $stated = null,
        public array $chapters = [],
        public string $cover = '',
    ) {
    }

    /** @return list<Track> */
    public function sound(): array
    {
        return array_values(array_filter($this->tracks, fn (Track $track): bool => $track->sound !== null));
    }

    public function picture(): ?Track
    {
        foreach ($this->tracks as $track) {
            if ($track->picture !== null) {
                return $track;
            }
        }

        return null;
    }

    public function track(int $number): ?Track
    {
        foreach ($this->tracks as $track) {
            if ($track->number === $number) {
                return $track;
            }
        }

        return null;
    }

    /** Whether the name says something else than the content. */
    public function extensionDiffers(): bool
    {
        return array_filter($this->findings, fn (Finding $finding): bool => $finding->code === 'extension-differs') !== [];
    }

    /** @return array<int, string> how the bit rate of each sound track goes, by its number */
    public function rateModes(): array
    {
        $modes = [];
        foreach ($this->sound() as $track) {
            $mode = $track->sound === null ? null : self::rateMode($track->sound);
            $modes[$track->number] = (string) $mode;
        }

        return $modes;
    }

    /** What keeps the whole source from being used, whichever track is chosen. */
    public function obstacle(): ?Finding
    {
        foreach ($this->findings as $finding) {
            if ($finding->level === Severity::Stop && $finding->code === 'cut-short') {
                return $finding;
            }
        }

        return null;
    }

    /** @return array<string, mixed> as `read --json` prints it */
    public function toArray(): array
    {
        return [
            'path' => $this->path,
            'container' => $this->container,
            'bytes' => $this->bytes,
            'seconds' => round($this->seconds, 6),
            'tracks' => array_map(self::fields(...), $this->tracks),
            'tags' => (object) $this->tags->toArray(),
            'cover' => $this->tags->cover === null ? null : ['type' => $this->tags->cover->type, 'bytes' => strlen($this->tags->cover->bytes)],
            'chapters' => array_map(fn (Chapter $chapter): array => $chapter->toArray(), $this->chapters),
            'findings' => array_map(fn (Finding $finding): array => $finding->toArray(), $this->findings),
            'bytes_read' => $this->bytesRead,
            'stated' => $this->stated === null ? null : (string) $this->stated,
        ];
    }

    /**
     * What {@see self::toArray()} gave, so that plans can be made without opening the source again.
     *
     * @param  array<array-key, mixed>  $stored
     *
     * @throws \UnexpectedValueException where it is not that
     */
    public static function fromArray(array $stored): self
    {
        $fields = new Fields($stored);

        return new self(
            $fields->text('path'),
            $fields->text('container'),
            $fields->number('bytes'),
            $fields->float('seconds'),
            array_map(fn (Fields $track): Track => StoredTrack::read($track), $fields->each('tracks')),
            Tags::fromArray((array) ($stored['tags'] ?? [])),
            array_map(fn (Fields $finding): Finding => new Finding($finding->text('code'), Severity::from($finding->text('level')), $finding->text('says'), $finding->text('remedy')), $fields->each('findings')),
            $fields->number('bytes_read'),
            $fields->isNull('stated') ? null : HeaderlessFormat::parse($fields->text('stated')),
            array_map(fn (Fields $chapter): Chapter => new Chapter($chapter->float('starts'), $chapter->text('title')), $fields->isNull('chapters') ? [] : $fields->each('chapters')),
            $fields->optional('cover')?->text('type') ?? '',
        );
    }

    /** @return array<string, mixed> */
    private static function fields(Track $track): array
    {
        $common = ['number' => $track->number, 'kind' => $track->kind->value, 'language' => $track->language, 'bytes' => $track->codedBytes];
        $kbps = $track->seconds() > 0 ? round($track->codedBytes / $track->seconds() / 125, 1) : 0;
        if ($track->sound !== null) {
            $rate = max(1, $track->sound->rate);

            return [...$common,
                'codec' => $track->sound->codec->value,
                'form' => $track->sound->label(),
                'rate' => $track->sound->rate,
                'channels' => $track->sound->channels(),
                'layout' => $track->sound->layout->name(),
                'bits' => $track->sound->bits(),
                'kbps' => $kbps,
                'rate_mode' => self::rateMode($track->sound),
                'delay' => $track->timeline->skipped(),
                'samples' => $track->timeline->samples(),
                'starts' => round($track->timeline->startOffset / $rate, 6),
                'seconds' => round($track->seconds(), 6),
                'exact' => StoredTrack::exact($track, $track->sound),
            ];
        }
        if ($track->picture !== null) {
            return [...$common,
                'codec' => $track->picture->codec->value,
                'form' => $track->picture->label,
                'width' => $track->picture->width,
                'height' => $track->picture->height,
                'rate' => round($track->picture->perSecond, 3),
                'kbps' => $kbps,
                'starts' => round($track->picture->startOffset, 6),
                'seconds' => round($track->seconds(), 6),
            ];
        }

        return [...$common, 'codec' => $track->coding === '' ? 'text' : $track->coding, 'form' => $track->kind === TrackKind::Timecode ? 'time code' : ($track->coding === '' ? 'text' : 'subtitles')];
    }

    private static function rateMode(AudioFormat $audio): ?string
    {
        $constant = $audio->codec === Codec::Mp3 ? ! str_contains($audio->variant, 'variable') : $audio->codec->hasConstantRate();

        return $constant === null ? null : ($constant ? 'constant' : 'variable');
    }
}
