<?php

declare(strict_types=1);

namespace Tests\Architecture;

use PHPat\Selector\Selector;
use PHPat\Selector\SelectorInterface;
use PHPat\Test\Attributes\TestRule;
use PHPat\Test\Builder\Rule;
use PHPat\Test\PHPat;

/** Who may use whom, in the core and in the application; `docs/architecture.md` draws both tables. */
final class Rooms
{
    /** Rooms of the core: each may use those named, itself and the root of the core. */
    public const CORE = [
        'Bytes' => [],
        'Json' => [],
        'Sound' => [],
        'Media' => ['Bytes', 'Json', 'Sound'],
        'Tag' => ['Bytes'],
        'Name' => [],
        'Codec' => ['Bytes', 'Sound', 'Media'],
        'Container' => ['Bytes', 'Sound', 'Media', 'Tag', 'Codec'],
        'Disc' => ['Bytes', 'Sound', 'Media', 'Tag', 'Codec', 'Container'],
        'Reading' => ['Bytes', 'Json', 'Sound', 'Media', 'Tag', 'Name', 'Codec', 'Container', 'Disc'],
        'Parallel' => ['Bytes', 'Json', 'Media'],
        'Decode' => ['Sound', 'Media', 'Codec', 'Container', 'Reading', 'Parallel', 'Bytes'],
        'Analysis' => ['Bytes', 'Json', 'Sound', 'Media', 'Tag', 'Codec', 'Container', 'Reading', 'Decode', 'Parallel'],
        'Order' => ['Json', 'Sound', 'Media', 'Tag', 'Name', 'Codec', 'Container'],
        'Plan' => ['Json', 'Sound', 'Media', 'Tag', 'Name', 'Codec', 'Container', 'Reading', 'Analysis', 'Order'],
        'Destination' => ['Json', 'Sound', 'Media', 'Tag', 'Name', 'Codec', 'Container', 'Reading', 'Analysis', 'Order', 'Plan'],
        'Make' => ['Bytes', 'Json', 'Sound', 'Media', 'Tag', 'Name', 'Codec', 'Container', 'Reading', 'Decode', 'Parallel', 'Analysis',
            'Order',
            'Plan', 'Destination'],
    ];

    /** Rooms of the application, from the lowest: each may use those before it. The pages of all subjects are a room of their own. */
    public const APPLICATION = ['Lists', 'Database', 'Files', 'Processes', 'Work', 'Presets', 'Settings', 'Sources', 'Orders', 'Results',
        'Watching', 'Outside', 'Http', 'Upkeep', 'Pages', 'Api', 'Console', 'Providers'];

    /** What a subject has in it, from the lowest: each may use those before it. */
    public const LAYERS = ['Values', 'Models', 'Queries', 'Actions', 'Jobs'];

    /** What opens media, decodes, plans from media or makes: for processes of their own, never for the one that answers a page. */
    private const ENGINE = '/^Octavox\\\\Core\\\\(Codec\\\\Codecs$|Codec\\\\([A-Za-z0-9]+\\\\)?Native\\\\|Sound\\\\Native\\\\|Decode\\\\|Testing\\\\'
        .'|Container\\\\(Containers|Demuxer)$|Container\\\\(?!Raw\\\\HeaderlessFormat(Unknown)?$|Cue\\\\SheetUnusable$|Video\\\\VideoOutput)[A-Za-z0-9]+\\\\'
        .'|Disc\\\\(?!StatedTitle$|DiscFolder$)|Reading\\\\(Opener|Reader|BorderFinder|OpenedSource)$'
        .'|Analysis\\\\(Analyzer|ParallelAnalysis|SizeTrial|Excerpt)$|Make\\\\(Maker|SourceInspector|Pipeline\\\\.*)$)/';

    /** What opens sources. */
    private const OPENERS = '/^Octavox\\\\Core\\\\(Reading\\\\(Opener|Reader|BorderFinder|OpenedSource)|Container\\\\(Containers|Demuxer)'
        .'|Analysis\\\\(Analyzer|ParallelAnalysis|SizeTrial|Excerpt|Waveform)|([A-Za-z0-9\\\\]+\\\\)?Native\\\\[A-Za-z0-9]+)$/';

    /** @return iterable<string, Rule> */
    #[TestRule]
    public function roomsOfTheCore(): iterable
    {
        foreach (self::CORE as $room => $may) {
            $others = array_diff(array_keys(self::CORE), $may, [$room]);
            yield $room => PHPat::rule()->classes(self::core($room))->shouldNot()->dependOn()
                ->classes(...array_map(self::core(...), array_values($others)), ...[self::namespace('App'), self::namespace('Octavox\Cli'),
                    self::namespace('Illuminate'), self::namespace('Symfony'), self::namespace('Octavox\Core\Testing')])
                ->because("the room $room of the core may use: ".implode(', ', $may));
        }
    }

    /** @return iterable<string, Rule> */
    #[TestRule]
    public function roomsOfTheApplication(): iterable
    {
        foreach (self::APPLICATION as $rank => $room) {
            $above = array_slice(self::APPLICATION, $rank + 1);
            if ($above !== []) {
                yield $room => PHPat::rule()->classes(self::application($room))->shouldNot()->dependOn()
                    ->classes(...array_map(self::application(...), $above))
                    ->because("the room $room of the application may use those before it only");
            }
        }
    }

    /** @return iterable<string, Rule> */
    #[TestRule]
    public function layersOfSubjects(): iterable
    {
        foreach (self::LAYERS as $rank => $layer) {
            $above = array_map(self::layer(...), array_slice(self::LAYERS, $rank + 1));
            if ($above !== []) {
                yield $layer => PHPat::rule()->classes(self::layer($layer))->shouldNot()->dependOn()->classes(...$above)
                    ->because("$layer may use what stands before them only: ".implode(', ', self::LAYERS));
            }
        }
    }

    #[TestRule]
    public function onlyNativeFoldersTouchFfi(): Rule
    {
        return PHPat::rule()->classes(self::matching('/^(App|Octavox\\\\(Core|Cli))\\\\/'))
            ->excluding(self::matching('/\\\\Native\\\\/'), self::matching('/^Octavox\\\\Core\\\\Testing\\\\/'))
            ->shouldNot()->dependOn()->classes(self::matching('/^\\\\?FFI(\\\\|$)/'))
            ->because('libraries are called in folders named Native only');
    }

    #[TestRule]
    public function containersKnowNoCodecLibrary(): Rule
    {
        return PHPat::rule()->classes(self::core('Container'))->shouldNot()->dependOn()
            ->classes(self::matching('/^Octavox\\\\Core\\\\Codec\\\\(Codecs$|([A-Za-z0-9]+\\\\)?Native\\\\|.*(Decoder|Encoder)$)/'))
            ->because('a container hands packets over as they are');
    }

    #[TestRule]
    public function planningOpensNothing(): Rule
    {
        return PHPat::rule()->classes(self::core('Plan'), self::core('Order'), self::core('Destination'))->shouldNot()->dependOn()
            ->classes(self::matching(self::OPENERS))->because('planning gives the same answer in every process');
    }

    #[TestRule]
    public function nothingIsReadPastTheRoomOfBytes(): Rule
    {
        return PHPat::rule()->classes(self::core('Plan'), self::core('Order'), self::core('Container'), self::core('Codec'))->shouldNot()
            ->dependOn()->classes(self::matching('/^\\\\?Spl(File|Temp)/'), Selector::classname('php_user_filter'))
            ->because('bytes are bounded, counted and fenced where they are read');
    }

    #[TestRule]
    public function theWebParsesNoMedia(): Rule
    {
        return PHPat::rule()->classes(self::namespace('App'))->shouldNot()->dependOn()->classes(self::matching(self::ENGINE))
            ->because('media is opened in processes of their own');
    }

    #[TestRule]
    public function controllersAreThin(): Rule
    {
        return PHPat::rule()->classes(self::matching('/^App\\\\.*Controller$/'))->shouldNot()->dependOn()

            ->classes(self::matching('/^Octavox\\\\Core\\\\(Make|Codec|Container|Plan|Order|Parallel)\\\\(?!.*(Failed|Unreadable|Unusable|Unknown|Invalid)$)/'),
                self::matching('/^Illuminate\\\\(Database\\\\|Support\\\\Facades\\\\DB$)/'))
            ->because('a controller asks actions and queries');
    }

    #[TestRule]
    public function modelsKnowNothingOfHttp(): Rule
    {
        return PHPat::rule()->classes(self::layer('Models'), self::layer('Values'), self::layer('Queries'), self::layer('Actions'),
            self::layer('Jobs'))->shouldNot()->dependOn()->classes(self::namespace('Illuminate\Http'),
                self::namespace('Illuminate\Routing'),
                self::namespace('Symfony\Component\HttpFoundation'), self::namespace('App\Http'))
            ->because('what is kept and done does not depend on who asks');
    }

    private static function namespace(string $name): SelectorInterface
    {
        return Selector::inNamespace($name);
    }

    private static function core(string $room): SelectorInterface
    {
        return self::namespace('Octavox\Core\\'.$room);
    }

    private static function application(string $room): SelectorInterface
    {
        return self::matching($room === 'Pages' ? '/^App\\\\[A-Za-z]+\\\\Pages\\\\/' : '/^App\\\\'.$room.'\\\\(?!Pages\\\\)/');
    }

    private static function layer(string $layer): SelectorInterface
    {
        return self::matching('/^App\\\\[A-Za-z]+\\\\'.$layer.'\\\\/');
    }

    private static function matching(string $pattern): SelectorInterface
    {
        return Selector::classname($pattern, true);
    }
}
