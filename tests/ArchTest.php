<?php

declare(strict_types=1);

arch('strict')->expect(['App', 'Octavox\Cli'])->toUseStrictTypes();
arch('controllers stay thin')
    ->expect('App\Http\Controllers')->not->toUse(['Illuminate\Support\Facades\DB', 'Octavox\Core\Make', 'Octavox\Core\Codec',
        'Octavox\Core\Container']);
arch('no native calls in the application')
    ->expect(['App', 'Octavox\Cli'])->not->toUse(['FFI', 'Octavox\Core\Codec\Native', 'Octavox\Core\Sound\Native']);
arch('nothing is dumped')->expect(['dd', 'dump', 'var_dump', 'print_r', 'ray'])->not->toBeUsed();
arch('classes are closed')->expect('App')->classes()->toBeFinal();
arch('the core is not reached around')->expect('Octavox\Core')->not->toUse('App');

it('keeps logic out of the views', function () {
    foreach (glob(__DIR__.'/../resources/views/{,*/}*.blade.php', GLOB_BRACE) ?: [] as $view) {
        expect(file_get_contents($view))->not->toContain('@php')->not->toContain('<?php');
    }
});

it('fetches nothing from elsewhere', function () {
    $shipped = [...glob(__DIR__.'/../resources/views/{,*/}*.blade.php', GLOB_BRACE) ?: [], ...glob(__DIR__.'/../public/assets/*') ?: []];
    foreach ($shipped as $file) {
        expect(preg_replace('#http://www\.w3\.org/2000/svg#', '', (string) file_get_contents($file)))->not->toMatch(
            '#(src|href)="https?://|url\(https?:|@import#');
    }
});
