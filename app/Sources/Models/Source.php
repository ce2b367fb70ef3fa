<?php

declare(strict_types=1);

namespace App\Sources\Models;

use App\Sources\Values\AnalysisFinding;
use App\Sources\Values\CatalogueNote;
use App\Sources\Values\SourceState;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Support\Carbon;
use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Disc\StatedTitle;
use Octavox\Core\Media\Codec;
use Octavox\Core\Reading\Playlist;
use Octavox\Core\Reading\Reading;

/**
 * A media file that was brought in; never changed.
 *
 * @property int $id
 * @property string $name
 * @property string $folder
 * @property string $path
 * @property string $origin `upload`, `shelf`, `drive`, `result`, or `recorder` for what was copied in
 * @property string $came_from  where it was copied from; empty else
 * @property ?string $sha256  of its bytes when it was copied
 * @property SourceState $state
 * @property ?string $container
 * @property int $bytes
 * @property ?float $seconds
 * @property ?string $picture
 * @property ?string $worst
 * @property ?array<array-key, mixed> $reading
 * @property ?string $error_code
 * @property ?string $error_says
 * @property ?string $content  the same for files of the same content
 * @property ?int $same_as  number of the source whose content it has
 * @property string $note
 * @property string $given_name  what people call it; empty where its file's name stands
 * @property ?int $belongs_to  number of the source that stands for it on the list
 * @property ?int $group_id
 * @property ?Group $group
 * @property ?string $stated  as what it is opened: what a file without a header holds, or which title of a disc it is
 * @property ?array<array-key, mixed> $catalogue  what was accepted from a catalogue
 * @property ?string $binned  where its file lies since it was put into the bin
 * @property ?Carbon $removed_at  when it was taken off the list
 * @property Carbon $created_at
 * @property Carbon $updated_at
 * @property Collection<int, Track> $tracks
 * @property Collection<int, self> $companions
 */
final class Source extends Model
{
    /** Failures of reading that sound without a header meets. */
    public const NO_HEADER = ['unknown-format', 'no-tracks', 'raw-form-unknown'];

    private const MOST_NAMES = 5;

    protected $guarded = [];

    /** @var array<string, string> */
    protected $casts = ['state' => SourceState::class, 'reading' => 'array', 'bytes' => 'integer', 'seconds' => 'float',
        'catalogue' => 'array',
        'removed_at' => 'datetime'];

    /** @var array<string, string> */
    protected $attributes = ['came_from' => '', 'note' => '', 'given_name' => ''];

    /** What was taken off the list is found only by those who ask for it. */
    protected static function booted(): void
    {
        self::addGlobalScope('listed', fn (Builder $query) => $query->whereNull('sources.removed_at'));
    }

    /** @return Builder<self> those on the list and those that were taken off it */
    public static function everyOne(): Builder
    {
        return self::query()->withoutGlobalScope('listed');
    }

    /** @return Builder<self> those that were taken off the list */
    public static function removed(): Builder
    {
        return self::everyOne()->whereNotNull('removed_at');
    }

    /** @return BelongsTo<Group, $this> */
    public function group(): BelongsTo
    {
        return $this->belongsTo(Group::class);
    }

    /** @return HasMany<self, $this> those for which it stands on the list */
    public function companions(): HasMany
    {
        return $this->hasMany(self::class, 'belongs_to')->orderBy('id');
    }

    /** Names of those for which it stands, the first few of many. */
    public function companionNames(): string
    {
        $more = $this->companions->count() - self::MOST_NAMES;

        return implode(', ', $this->companions->take(self::MOST_NAMES)->map(fn (self $one): string => $one->heading())->all()).($more > 0
            ? " and $more more" : '');
    }

    /** What it is called on pages and in the names of results. */
    public function heading(): string
    {
        return $this->given_name === '' ? $this->name : $this->given_name;
    }

    /** @return HasMany<Track, $this> */
    public function tracks(): HasMany
    {
        return $this->hasMany(Track::class)->orderBy('number');
    }

    /** All that was read of it; null as long as it is not readable, or where what was read is not understood any more. */
    public function facts(): ?Reading
    {
        try {
            $reading = $this->reading === null ? null : Reading::fromArray($this->reading);

            return $reading === null ? null : $this->noted()?->over($reading) ?? $reading;
        } catch (\UnexpectedValueException $broken) {
            report($broken);

            return null;
        }
    }

    /** What was accepted from a catalogue; null where nothing was. */
    public function noted(): ?CatalogueNote
    {
        return CatalogueNote::of($this->catalogue);
    }

    /** Where the picture that stands for its sound is kept. */
    public function coverPath(): string
    {
        return sprintf('%s/covers/%d', config()->string('octavox.home'), $this->id);
    }

    public function isReady(): bool
    {
        return $this->state === SourceState::Ready;
    }

    /** @return Collection<int, Track> */
    public function soundTracks(): Collection
    {
        return $this->tracks->where('kind', 'sound')->values();
    }

    /** The sound track of a number; the first where there is none of it. */
    public function soundTrack(int $number): ?Track
    {
        return $this->soundTracks()->firstWhere('number', $number) ?? $this->soundTracks()->first();
    }

    /** @return list<AnalysisFinding> of all sound tracks */
    public function analysisFindings(): array
    {
        return array_merge([], ...$this->soundTracks()->map(fn (Track $track): array => $track->findings())->all());
    }

    /** 0 where there is no picture. */
    public function picturesASecond(): float
    {
        return (float) ($this->tracks->firstWhere('kind', 'picture')->per_second ?? 0.0);
    }

    /** What a browser that shows the picture may not play of its sound, in one sentence; empty where it can. */
    public function sounds(): string
    {
        $sound = ($this->facts()?->sound()[0] ?? null)?->sound;

        return $sound === null
            || in_array($sound->codec, [Codec::Aac, Codec::Mp3, Codec::Opus, Codec::Vorbis, Codec::Flac, Codec::Pcm], true)
            ? '' : sprintf('Browsers play this picture without its %s sound; that plays on the waveforms above.',
                CodecModules::describe($sound));
    }

    /** Whether its file lies with what Octavox keeps, and nowhere else. */
    public function isOurs(): bool
    {
        return ! in_array($this->origin, ['shelf', 'drive', 'result'], true);
    }

    /** What lies with us because of it alone, where its file does: what goes when it goes for good. */
    public function ownFolder(): string
    {
        $all = config()->string('octavox.home').'/sources/';

        return str_starts_with($this->path, $all) ? $all.explode('/', substr($this->path, strlen($all)))[0] : dirname($this->path);
    }

    /** Whether its sound lies in other files, which its own only names. */
    public function isSheet(): bool
    {
        return $this->container === 'cue';
    }

    /** Number of the title, of a video disc; null where it is none. */
    public function discTitle(): ?int
    {
        return $this->stated === null ? null : StatedTitle::parse($this->stated)?->number;
    }

    /** Whether its file is there for other sources too, as that of a disc is for its titles. */
    public function isShared(): bool
    {
        return $this->discTitle() !== null && self::everyOne()->where('path', $this->path)->where('id', '!=', $this->id)->exists();
    }

    /** Whether it is opened as what somebody said it holds; a title of a video disc is none of these. */
    public function isHeaderless(): bool
    {
        return $this->stated !== null && $this->discTitle() === null;
    }

    /** Whether it may be sound without a header, so that somebody can say what it holds. */
    public function mayBeHeaderless(): bool
    {
        return $this->isHeaderless() || $this->state === SourceState::Unreadable
            && in_array($this->error_code, self::NO_HEADER, true)
            && ! Playlist::isOne($this->name);
    }

    public function canBeOrdered(): bool
    {
        return $this->isReady() && ($this->soundTracks()->isNotEmpty() || (string) $this->picture !== '');
    }
}
