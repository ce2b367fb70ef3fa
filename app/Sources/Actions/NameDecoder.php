<?php

declare(strict_types=1);

namespace App\Sources\Actions;

use App\Settings\Values\SettingRefused;
use App\Sources\Models\Source;
use App\Sources\Queries\Decoders;
use App\Sources\Values\SourceState;
use App\Work\WorkKind;
use App\Work\WorkSignal;
use Octavox\Core\Codec\OutsideDecoders;

/** Names a program as the decoder of a codec, or takes it away; sources that it matters to are read again. */
final class NameDecoder
{
    private const LONGEST = 1000;

    private const MOST = 50;

    public function __construct(private readonly Decoders $decoders, private readonly WorkSignal $signal) {}

    /** @throws SettingRefused why it is not taken */
    public function name(string $codec, string $command): void
    {
        $codec = mb_strtolower(trim(mb_scrub($codec)));
        $command = trim(mb_scrub($command));
        $why = match (true) {
            $codec === '' || mb_strlen($codec) > 60 => 'Say which codec it decodes, as the facts of a source call it.',
            ! $this->decoders->isCodec($codec) => sprintf('No sound is called “%s” here: give the name of the codec as the facts of a '
                .'source call it, such as ape or form 0x7A7A.', $codec),
            mb_strlen($command) > self::LONGEST || OutsideDecoders::words($command) === null => 'The command begins with a program and '
                .'says with {path} where the path of the file goes, as in: /usr/local/bin/decode {path} {track}',
            ! $this->decoders->isThere($command) => 'There is no such program on this machine, or Octavox may not run it.',
            count($this->decoders->all()) >= self::MOST => sprintf('There are %d decoders already.', self::MOST),
            default => '',
        };
        if ($why !== '') {
            throw new SettingRefused($why);
        }
        $this->decoders->set($codec, $command);
        $this->readAgain('%codec-not-decodable%');
    }

    public function forget(string $codec): void
    {
        $this->decoders->set($codec, '');
        $this->readAgain('%"outside":true%');
    }

    /** @param  string  $like  what stands in the readings that it matters to */
    private function readAgain(string $like): void
    {
        foreach (Source::query()->where('state', SourceState::Ready)->where('reading', 'like', $like)->get() as $source) {
            $source->update(['state' => SourceState::Reading]);
            $this->signal->announce(WorkKind::Reading);
        }
    }
}
