<?php

declare(strict_types=1);

namespace Octavox\Cli;

use Octavox\Core\Container\Raw\RawForm;
use Octavox\Core\Failure;
use Octavox\Core\Reading\Reader;
use Octavox\Core\Reading\Reading;

/** Prints the facts of sources and what stands in their way. */
final class ReadCommand implements Command
{
    public function __construct(private readonly Arguments $arguments, private readonly Output $output)
    {
    }

    public function run(): int
    {
        if ($this->arguments->paths === []) {
            throw Usage::missing('The path of a file or folder');
        }
        $stated = RawForm::parseOptional($this->arguments->text('headerless'));
        $sources = [];
        $first = null;
        foreach (Files::under($this->arguments->paths) as $path) {
            try {
                $reading = Reader::read($path, $stated);
                $sources[] = $reading->toArray();
                $this->output->say($this->describe($reading));
            } catch (Failure $failure) {
                $first ??= $failure;
                $sources[] = ['path' => $path, 'error' => ['code' => $failure->code(), 'message' => $failure->getMessage(), 'path' => $path]];
                $this->output->say($path."\n  ".$failure->getMessage());
            }
        }
        if (count($sources) === 1 && $first !== null) {
            $this->output->error($first, $sources[0]['path']);

            return 1;
        }
        $this->output->document(['sources' => $sources]);

        return $first === null ? 0 : 1;
    }

    private function describe(Reading $reading): string
    {
        $lines = [sprintf('%s  (%s, %s, %s bytes)', $reading->path, $reading->container, Output::clock($reading->seconds), number_format($reading->bytes))];
        foreach ($reading->tracks as $track) {
            $lines[] = match (true) {
                $track->sound !== null => sprintf('  %d  sound    %s, %s, %s Hz%s, %s samples', $track->number, $track->sound->label(), $track->sound->layout->name(), number_format($track->sound->rate), $track->language === null ? '' : ', '.$track->language, number_format($track->timeline->samples())),
                $track->picture !== null => sprintf('  %d  picture  %s, %d × %d, %.3g a second', $track->number, $track->picture->label, $track->picture->width, $track->picture->height, $track->picture->perSecond),
                default => sprintf('  %d  text', $track->number),
            };
        }
        foreach ($reading->findings as $finding) {
            $lines[] = sprintf('  %s: %s %s', $finding->level->value, $finding->says, $finding->remedy);
        }

        return implode("\n", $lines);
    }
}
