<?php

declare(strict_types=1);

// Takes the fingerprint of a source's first sound track: JSON {path, stated} on the standard input; answers with {fingerprint, seconds}, the
// fingerprint as numbers of 32 bits, most significant byte first, in base64.

use Octavox\Core\Analysis\Fingerprint;
use Octavox\Core\Codec\CodecModules;
use Octavox\Core\Codec\CodecNotDecodable;
use Octavox\Core\Codec\Codecs;
use Octavox\Core\Container\NoTracks;
use Octavox\Core\Json\Fields;
use Octavox\Core\Parallel\ChildScript;
use Octavox\Core\Reading\Opener;
use Octavox\Core\Reading\Stated;

require __DIR__.'/autoload.php';
require __DIR__.'/guard.php';

exit(ChildScript::run(function (Fields $asked): array {
    $source = Opener::open($asked->text('path'), Stated::parse($asked->textOrNull('stated')));
    $track = $source->sound()[0] ?? throw NoTracks::at($asked->text('path'));
    if ($track->sound === null || ! Codecs::canDecode($track->sound)) {
        throw CodecNotDecodable::named(CodecModules::describeTrack($track));
    }

    return ['fingerprint' => base64_encode(pack('N*', ...Fingerprint::compute($source, $track))), 'seconds' => $track->seconds()];
}));
