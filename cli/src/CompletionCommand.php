<?php

declare(strict_types=1);

namespace Octavox\Cli;

use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\Outputs;
use Octavox\Core\Container\Video\VideoOutputFormat;
use Octavox\Core\Container\Video\VideoOutputs;
use Octavox\Core\Destination\DestinationInvalid;
use Octavox\Core\Destination\Destinations;
use Octavox\Core\Failure;
use Octavox\Core\Order\RecipeInvalid;
use Octavox\Core\Order\Recipes;

/** Says what a shell has to know to complete words: `source <(./octavox completion bash)`, or zsh. */
final readonly class CompletionCommand implements Command
{
    private const COMMANDS = 'demo serve test bench read make watch orders compare destinations recipes completion help';

    public function __construct(private Arguments $arguments, private Output $output) {}

    /**
     * @throws Failure
     */
    public function run(): int
    {
        $shell = $this->arguments->paths[0] ?? '';
        if (! in_array($shell, ['bash', 'zsh'], true)) {
            throw Usage::value('completion', $shell, 'bash or zsh');
        }
        $this->output->say(($shell === 'zsh' ? "autoload -U +X bashcompinit && bashcompinit\n" : '').$this->script());

        return 0;
    }

    /**
     * @throws DestinationInvalid
     * @throws RecipeInvalid
     * @throws Failure
     */
    private function script(): string
    {
        $options = fn (array $names): string => implode(' ', array_map(fn (string $name): string => '--'.$name, $names));
        $formats = implode(' ', array_map(fn (OutputFormat|VideoOutputFormat $one): string => $one->name(), [...Outputs::all(),
            ...VideoOutputs::all()]));
        $values = [
            '--format' => $formats, '--sound' => $formats, '--recipe' => implode(' ', array_keys(Recipes::all(Home::path('recipes')))),
            '--for' => implode(' ', array_keys(Destinations::all(Home::path('destinations')))), '--held' => 'constant average',
            '--stereo' => 'joint separate', '--dither' => 'on off', '--exists' => 'number replace skip', '--right' => 'copy leave',
            '--picture' => 'keep leave', '--length' => 'sound picture', '--name-signs' => 'keep remove spell',
            '--tag-signs' => 'keep remove spell', '--layout' => 'asis split mono stereo left right left-both right-both swap 5.1 7.1',
        ];
        $cases = implode("\n", array_map(fn (string $option, string $words): string => sprintf('        %s) COMPREPLY=($(compgen -W "%s" '
            .'-- "$word")); return ;;', $option, $words), array_keys($values), $values));

        return strtr(<<<'SH'
            _octavox() {
                local word="${COMP_WORDS[COMP_CWORD]}" before="${COMP_WORDS[COMP_CWORD-1]}" options=""
                COMPREPLY=()
                if [ "$COMP_CWORD" -eq 1 ]; then
                    COMPREPLY=($(compgen -W "COMMANDS" -- "$word"))
                    return
                fi
                case "$before" in
            CASES
                esac
                case "${COMP_WORDS[1]}" in
                    make) options="MAKE" ;;
                    watch) options="MAKE --still --once" ;;
                    orders) options="--json --hold --go-on --first --last --cancel --retry" ;;
                    read) options="--headerless --for --disc-title --json --listen" ;;
                    completion) COMPREPLY=($(compgen -W "bash zsh" -- "$word")); return ;;
                    *) options="--json" ;;
                esac
                case "$word" in
                    -*) COMPREPLY=($(compgen -W "$options" -- "$word")) ;;
                    *) COMPREPLY=($(compgen -f -- "$word")) ;;
                esac
            }
            complete -o filenames -F _octavox octavox ./octavox
            SH, ['COMMANDS' => self::COMMANDS, 'CASES' => $cases, 'MAKE' => $options([...MakeCommand::OPTIONS, ...MakeCommand::FLAGS])]);
    }
}
