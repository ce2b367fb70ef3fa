<?php

declare(strict_types=1);

// Writes docs/octavox.1, the page for `man`, and docs/command-line.md from what the command says of itself.

require __DIR__.'/../core/bin/autoload.php';
require_once __DIR__.'/../cli/src/Application.php';

$help = rtrim(Octavox\Cli\Application::help());
$lines = array_map(fn (string $line): string => preg_replace('/^[.\']/', '\\\\&$0', str_replace(['\\', '-'], ['\\e', '\\-'], $line)) ?? $line,
    explode("\n", $help));
$pages = [
    'octavox.1' => ".\\\" Written by bin/man.php from the help of the command.\n.TH OCTAVOX 1\n.SH NAME\noctavox \\- takes the sound out of videos and "
        ."recordings, and makes of it what other programs and players accept\n.SH SYNOPSIS\n.nf\n".implode("\n", $lines)."\n.fi\n",
    'command-line.md' => "# The command line\n\nThese commands work without the web part running. Ctrl-C ends each at once, keeps what is done and leaves "
        ."nothing half\nmade. With `--json` each prints one document, also when it is stopped. Exit status 0 means success, 1 failure, 2 invalid\n"
        ."usage or an unsupported value (the nearest supported one is named). No result ever takes the place of a source.\n\n"
        ."`bin/man.php` writes this page from `./octavox --help`.\n\n```\n$help\n```\n",
];
foreach ($pages as $name => $page) {
    if (in_array('--print', $argv, true)) {
        echo in_array($name, $argv, true) ? $page : '';
    } else {
        file_put_contents(__DIR__.'/../docs/'.$name, $page);
    }
}
