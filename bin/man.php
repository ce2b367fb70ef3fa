<?php

declare(strict_types=1);

// Writes docs/octavox.1, the page for `man`, from what the command says of itself.

require __DIR__.'/../core/bin/autoload.php';
require_once __DIR__.'/../cli/src/Application.php';

$lines = array_map(fn (string $line): string => preg_replace('/^[.\']/', '\\\\&$0', str_replace(['\\', '-'], ['\\e', '\\-'], $line)) ?? $line,
    explode("\n", rtrim(Octavox\Cli\Application::help())));
$page = ".\\\" Written by bin/man.php from the help of the command.\n.TH OCTAVOX 1\n.SH NAME\noctavox \\- takes the sound out of videos and "
    ."recordings, and makes of it what other programs and players accept\n.SH SYNOPSIS\n.nf\n".implode("\n", $lines)."\n.fi\n";
if (in_array('--print', $argv, true)) {
    echo $page;
} else {
    file_put_contents(__DIR__.'/../docs/octavox.1', $page);
}
