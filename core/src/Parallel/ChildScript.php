<?php

declare(strict_types=1);

namespace Octavox\Core\Parallel;

use Octavox\Core\Failure;
use Octavox\Core\InternalFault;
use Octavox\Core\Json\Fields;

/** What every script in `bin/` does: reads one JSON value, works, says what it found or why it failed. */
final class ChildScript
{
    private const DEEPEST = 64;

    /**
     * @param  callable(Fields): ?array<array-key, mixed>  $work  null where all is said already
     * @return int exit status
     */
    public static function run(callable $work): int
    {
        try {
            $asked = json_decode((string) stream_get_contents(STDIN), true, self::DEEPEST, JSON_THROW_ON_ERROR);
            $answer = $work(new Fields(is_array($asked) ? $asked : []));
            if ($answer !== null) {
                fwrite(STDOUT, ChildMessage::answerLine($answer));
            }

            return 0;
        } catch (Failure $failure) {
            fwrite(STDERR, $failure->getMessage()."\n");
            fwrite(STDOUT, ChildMessage::failureLine($failure));
        } catch (\Throwable $bug) {
            fwrite(STDERR, $bug."\n");
            fwrite(STDOUT, ChildMessage::failureLine(InternalFault::of($bug)));
        }

        return 1;
    }
}
