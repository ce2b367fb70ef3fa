<?php

declare(strict_types=1);

namespace Octavox\Cli;

use Octavox\Core\Codec\OutsideDecoders;
use Octavox\Core\Failure;
use Octavox\Core\InternalFault;
use Octavox\Core\Order\SpecInvalid;

/** Finds the command that was asked for, runs it, and gives its exit status: 0 well, 1 failed, 2 wrongly written. */
final class Application
{
    /** @param  list<string>  $words */
    public static function run(array $words): int
    {
        OutsideDecoders::by(Home::path('decoders.json'));
        $json = in_array('--json', $words, true);
        $output = new Output($json);
        try {
            return self::command((string) array_shift($words), array_values($words), $output)->run();
        } catch (Usage|SpecInvalid $wrong) {
            $output->error($wrong);
            @fwrite(STDERR, $wrong->getMessage()."\n");

            return 2;
        } catch (Failure $failure) {
            $output->error($failure);
            @fwrite(STDERR, ($failure->path === null ? '' : $failure->path.': ').$failure->getMessage()."\n");

            return 1;
        } catch (\Throwable $bug) {
            $fault = InternalFault::of($bug);
            $output->error($fault);
            @fwrite(STDERR, $fault->getMessage().' ('.$bug->getMessage().")\n");

            return 1;
        }
    }

    public static function help(): string
    {
        return (string) file_get_contents(dirname(__DIR__).'/help.txt');
    }

    /**
     * @param  list<string>  $words
     *
     * @throws Usage
     */
    private static function command(string $name, array $words, Output $output): Command
    {
        return match ($name) {
            'read' => new ReadCommand(Arguments::parse($words, ['headerless', 'for', 'disc-title'], ['json', 'listen']), $output),
            'watch' => new WatchCommand(Arguments::parse($words, [...MakeCommand::OPTIONS, 'still'], [...MakeCommand::FLAGS, 'once']),
                $output),
            'make' => new MakeCommand(Arguments::parse($words, MakeCommand::OPTIONS, MakeCommand::FLAGS), $output),
            'compare' => new CompareCommand(Arguments::parse($words, [], ['json']), $output),
            'completion' => new CompletionCommand(Arguments::parse($words, [], []), $output),
            'destinations', 'recipes' => new ListCommand($name, Arguments::parse($words, [], ['json']), $output),
            default => throw Usage::unknown($name === '' ? 'without a command' : $name),
        };
    }
}
