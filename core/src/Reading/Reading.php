<?php

declare(strict_types=1);

namespace Octavox\Core\Reading;

use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Container\Raw\HeaderlessFormatUnknown;
use Octavox\Core\Container\StatedAs;
use Octavox\Core\Json\Fields;
use Octavox\Core\Json\PathText;
use Octavox\Core\Media\AudioFormat;
use Octavox\Core\Media\Codec;
use Octavox\Core\Media\Findings\CutShort;
use Octavox\Core\Media\Findings\ExtensionDiffers;
use Octavox\Core\Media\Severity;
use Octavox\Core\Media\Track;
use Octavox\Core\Tag\Broadcast;
use Octavox\Core\Tag\Chapter;
use Octavox\Core\Tag\DiscTrack;
use Octavox\Core\Tag\Tags;

/** All facts about a source, and the findings about it. */
final readonly class Reading
{
    public const VERSION = 2;

    /**
     * @param  list<Track>  $tracks
     * @param  list<Finding>  $findings
     * @param  list<Chapter>  $chapters
     * @param  string  $cover  its media type, empty where there is none
     * @param  int  $coverBytes  how large it is
     * @param  bool  $indexLast  whether its index stands behind what it tells of
     * @param  ?StatedAs  $stated  as what somebody wants it opened
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
        public ?StatedAs $stated = null,
        public array $chapters = [],
        public string $cover = '',
        public bool $indexLast = false,
        public int $coverBytes = 0,
    ) {}

    /**
     * The same, with what is known of it from elsewhere.
     *
     * @param  list<Chapter>  $chapters
     */
    public function knownAs(Tags $tags, array $chapters): self
    {
        return new self($this->path, $this->container, $this->bytes, $this->seconds, $this->tracks, $tags,
            $this->findings, $this->bytesRead,
            $this->stated, $chapters, $this->cover, $this->indexLast, $this->coverBytes);
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
        return array_filter($this->findings, fn (Finding $finding): bool => $finding->kind instanceof ExtensionDiffers) !== [];
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
            if ($finding->severity === Severity::Stop && $finding->kind instanceof CutShort) {
                return $finding;
            }
        }

        return null;
    }

    /** @return list<?float> seconds at which the music of each chapter ends; null where it goes on until the next begins */
    public function chapterEnds(): array
    {
        return array_map(fn (Chapter $chapter): ?float => $chapter->disc?->ends, $this->chapters);
    }

    /** @return array<string, mixed> as it is stored, so that plans can be made without opening the source again */
    public function toArray(): array
    {
        return [
            'version' => self::VERSION,
            'path' => PathText::encode($this->path),
            'container' => $this->container,
            'bytes' => $this->bytes,
            'seconds' => $this->seconds,
            'tracks' => array_map(StoredTrack::write(...), $this->tracks),
            'tags' => (object) $this->tags->toArray(),
            'recorded' => $this->tags->recorded,
            'broadcast' => $this->tags->broadcast === null ? null : (object) $this->tags->broadcast->toArray(),
            'cover' => $this->cover,
            'cover_bytes' => $this->coverBytes,
            'index_last' => $this->indexLast,
            'chapters' => array_map(fn (Chapter $chapter): array => $chapter->toArray(), $this->chapters),
            'findings' => array_map(fn (Finding $finding): array => $finding->toArray(), $this->findings),
            'bytes_read' => $this->bytesRead,
            'stated' => $this->stated === null ? null : (string) $this->stated,
        ];
    }

    /**
     * Readings of the first version are brought up to this one.
     *
     * @param  array<array-key, mixed>  $document  what {@see self::toArray()} gave
     *
     * @throws \UnexpectedValueException where it is not that, or of a version to come
     */
    public static function fromArray(array $document): self
    {
        $version = is_int($document['version'] ?? null) ? $document['version'] : 1;
        if ($version > self::VERSION) {
            throw new \UnexpectedValueException('A reading is of a version to come.');
        }
        $fields = new Fields($version < self::VERSION ? ReadingVersion1::upgraded(new Fields($document)) : $document);

        return new self(
            $fields->text('path'),
            $fields->text('container'),
            $fields->number('bytes'),
            $fields->float('seconds'),
            array_map(StoredTrack::read(...), $fields->each('tracks')),
            Tags::fromArray((array) ($fields->all()['tags'] ?? []))->withRecorded($fields->textOrNull('recorded') ?? '')
                ->withBroadcast($fields->isNull('broadcast') ? null : Broadcast::fromArray((array) $fields->all()['broadcast'])),
            array_map(Finding::read(...), $fields->each('findings')),
            $fields->number('bytes_read'),
            self::stated($fields->textOrNull('stated')),
            array_map(fn (Fields $chapter): Chapter => new Chapter($chapter->float('starts'), $chapter->text('title'),
                is_array($disc = $chapter->all()['disc'] ?? null) ? DiscTrack::fromArray($disc) : null), $fields->each('chapters')),
            $fields->text('cover'),
            ($fields->all()['index_last'] ?? false) === true,
            is_int($bytes = $fields->all()['cover_bytes'] ?? 0) ? max(0, $bytes) : 0,
        );
    }

    /** @throws \UnexpectedValueException where nothing is called so */
    private static function stated(?string $stated): ?StatedAs
    {
        try {
            return Stated::parse($stated);
        } catch (HeaderlessFormatUnknown $unknown) {
            throw new \UnexpectedValueException($unknown->getMessage(), previous: $unknown);
        }
    }

    /** `constant` or `variable`; null where it is not known */
    public static function rateMode(AudioFormat $audio): ?string
    {
        $constant = $audio->codec === Codec::Mp3 ? ! str_contains($audio->variant, 'variable') : CodecModules::of($audio->codec)
            ->hasConstantRate();

        return $constant === null ? null : ($constant ? 'constant' : 'variable');
    }
}
