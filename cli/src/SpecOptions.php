<?php

declare(strict_types=1);

namespace Octavox\Cli;

use Octavox\Core\Codec\RateControl;
use Octavox\Core\Codec\RateMode;
use Octavox\Core\Codec\StereoCoding;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Container\Video\VideoOutputFormat;
use Octavox\Core\Container\Video\VideoOutputs;
use Octavox\Core\Failure;
use Octavox\Core\Name\NamePattern;
use Octavox\Core\Name\Signs;
use Octavox\Core\Order\IfExists;
use Octavox\Core\Order\IfRight;
use Octavox\Core\Order\Length;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Order\PictureChoice;
use Octavox\Core\Order\Recipes;
use Octavox\Core\Order\SoundSpec;
use Octavox\Core\Tag\Broadcast;

/** The options of `make` as a spec; a spec that is read from a file lies beneath them. */
final readonly class SpecOptions
{
    public const OPTIONS = [
        'into', 'spec', 'format', 'track', 'layout', 'rate', 'bits', 'kbps', 'variable', 'name', 'exists', 'right', 'picture', 'sound',
        'length', 'labels',
        'from', 'until', 'pieces', 'fade-in', 'fade-out', 'level', 'recipe', 'name-signs', 'tag-signs',
        'cover', 'broadcast', 'held', 'stereo', 'compression', 'dither',
    ];

    public const FLAGS = ['each', 'exact', 'together', 'checksums', 'beside', 'de-emphasis'];

    public function __construct(private Arguments $arguments) {}

    /** @throws Failure */
    public function spec(): OutputSpec
    {
        $arguments = $this->arguments;
        $folder = $arguments->text('into');
        if ($folder !== null && $arguments->has('beside')) {
            throw Usage::apart('--beside', 'results lie beside their sources, or in the folder that --into names');
        }
        $folder = $arguments->has('beside') ? OutputSpec::BESIDE : $folder;
        $container = $this->format('format');
        if ($container !== null && VideoOutputs::named($container) === null) {
            $this->requireFormat('--format', $container);
        }
        $codec = $this->format('sound');
        if ($codec !== null && $codec !== 'keep') {
            $this->requireFormat('--sound', $codec);
        }
        $sound = new SoundSpec(
            $arguments->text('track'), $codec, $this->rateControl(), $arguments->number('rate'), $arguments->number('bits'),
            $arguments->text('layout'), $this->labels(),
            $this->pieces(), $arguments->has('each') ?: null, $arguments->has('exact') ?: null, $arguments->text('fade-in'),
            $arguments->text('fade-out'),
            $arguments->text('level'), $arguments->has('together') ?: null,
            StereoCoding::tryFrom((string) $arguments->choice('stereo', ['joint', 'separate'])), $arguments->has('checksums') ?: null,
            $arguments->number('compression'), $arguments->choice('dither', ['on', 'off']) === 'off' ? false : null,
            $arguments->has('de-emphasis') ?: null,
        );
        $spec = new OutputSpec(
            $container === null ? null : Outputs::named($container)?->name() ?? $container,
            $this->picture(), $sound->isEmpty() ? [] : [$sound],
            $this->length(), null,
            $arguments->text('name'),
            $folder === null ? null : (rtrim($folder, '/') === '' ? '/' : rtrim($folder, '/')),
            IfExists::tryFrom((string) $arguments->choice('exists', ['number', 'replace', 'skip'])),
            IfRight::tryFrom((string) $arguments->choice('right', ['copy', 'leave'])),
            Signs::tryFrom((string) $arguments->choice('name-signs', ['keep', 'remove', 'spell'])),
            Signs::tryFrom((string) $arguments->choice('tag-signs', ['keep', 'remove', 'spell'])), $this->cover(), $this->broadcast(),
        );
        $spec = $spec->over($this->beneath());

        return $spec->name === null ? $spec : $spec->withName(NamePattern::dated($spec->name, date('Y-m-d')));
    }

    /** However it is written. */
    private function format(string $option): ?string
    {
        $written = $this->arguments->text($option);

        return $written === null ? null : Outputs::spelled($written);
    }

    /** @throws Failure */
    private function beneath(): OutputSpec
    {
        $path = $this->arguments->text('spec');
        $recipe = $this->arguments->text('recipe');
        if ($path !== null && $recipe !== null) {
            throw Usage::apart('--recipe', 'a recipe is a spec with a name; leave --spec out, or --recipe');
        }
        if ($path === null) {
            return $recipe === null ? new OutputSpec : Recipes::find($recipe, Home::path('recipes'))->spec;
        }
        $json = is_file($path) ? @file_get_contents($path) : false;

        return $json === false ? throw Usage::value('--spec', $path, 'the path of a file that can be read')
            : OutputSpec::fromJson($json, $path);
    }

    /** @throws Usage */
    private function rateControl(): ?RateControl
    {
        $variable = $this->arguments->number('variable');
        $kbps = $this->arguments->number('kbps');

        $held = RateMode::tryFrom((string) $this->arguments->choice('held', ['constant', 'average']));
        if ($held !== null && $kbps === null) {
            throw Usage::apart('--held', 'it says how the bit rate is held that --kbps gives');
        }

        return $variable !== null ? RateControl::variable($variable) : ($kbps === null ? null : RateControl::exactly($kbps)->held($held));
    }

    /** @throws Usage */
    private function cover(): ?string
    {
        $path = $this->arguments->text('cover');
        if ($path === null || $path === 'none') {
            return $path === null ? null : '';
        }
        $real = realpath($path);

        return $real !== false && is_file($real) ? $real
            : throw Usage::value('--cover', $path, 'the path of a JPEG or PNG picture, or none');
    }

    /** @throws Usage */
    private function broadcast(): ?Broadcast
    {
        $text = $this->arguments->text('broadcast');
        $said = [];
        foreach (in_array($text, [null, 'plain'], true) ? [] : explode(';', $text) as $part) {
            [$field, $value] = array_map(trim(...), [...explode('=', $part, 2), '']);
            if (! isset(Broadcast::ROOM[$field]) || ! Broadcast::holds($field, $value)) {
                throw Usage::value('--broadcast', $part, 'plain, or fields with semicolons between: description=…; originator=…; '
                    .'reference=…; date=2026-05-09; time=14:03:22; history=…');
            }
            $said[$field] = $value;
        }

        return $text === null ? null : Broadcast::fromArray($said);
    }

    /** @throws Usage */
    private function length(): ?Length
    {
        $text = $this->arguments->text('length');

        return $text === null ? null : Length::tryFrom($text)
            ?? throw Usage::value('--length', $text, 'sound, picture, or a time such as 0:30');
    }

    /** @throws Usage */
    private function picture(): ?PictureChoice
    {
        return match ($this->arguments->choice('picture', ['keep', 'leave', 'drop'])) {
            'keep' => PictureChoice::Keep,
            null => null,
            default => PictureChoice::Leave,
        };
    }

    /** @return ?list<string> */
    private function labels(): ?array
    {
        $labels = $this->arguments->text('labels');

        return $labels === null ? null : explode(',', $labels);
    }

    /** @throws Usage */
    private function pieces(): ?string
    {
        [$from, $until, $pieces] = [$this->arguments->text('from'), $this->arguments->text('until'), $this->arguments->text('pieces')];
        if ($pieces !== null && ($from !== null || $until !== null)) {
            throw Usage::value('--pieces', $pieces, 'left out where --from and --until say what is wanted');
        }

        return $from === null && $until === null ? $pieces : ($from ?? '0').'-'.($until ?? 'end');
    }

    /** @throws Usage */
    private function requireFormat(string $option, string $name): void
    {
        if (Outputs::named($name) === null) {
            $sound = array_map(fn (OutputFormat $format): string => $format->name(), Outputs::all());
            $video = array_map(fn (VideoOutputFormat $format): string => $format->name(), VideoOutputs::all());
            throw Usage::value($option, $name, implode(', ', $option === '--format' ? [...$sound, ...$video] : $sound));
        }
    }
}
