<?php

declare(strict_types=1);

namespace App\Processes;

use Octavox\Core\Bytes\Fence;
use Octavox\Core\Codec\OutsideDecoders;
use Octavox\Core\Json\PathText;
use Octavox\Core\Parallel\CoreScript;
use Symfony\Component\Process\Process;

/** A process of the heart, which may call native libraries and open media files where the application may not. */
final class CoreProcess
{
    /**
     * @param  array<string, mixed>  $asked  what the script reads from its standard input
     * @param  bool  $brief  whether it shall begin soon rather than be fast
     */
    public static function prepare(string $script, array $asked, bool $brief = false): Process
    {
        $process = new Process(CoreScript::command($script, $brief), env: Fence::environment()
            + [OutsideDecoders::VARIABLE => DecodersFile::path()]);
        $process->setInput(json_encode(PathText::all($asked), JSON_THROW_ON_ERROR | JSON_INVALID_UTF8_SUBSTITUTE | JSON_UNESCAPED_UNICODE));

        return $process;
    }
}
