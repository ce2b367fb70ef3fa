<?php

declare(strict_types=1);

namespace Tests;

use App\Files\Shelves;
use App\Orders\Models\Order;
use App\Sources\Models\Source;
use App\Sources\Models\Upload;
use App\Work\WorkKind;
use Illuminate\Contracts\Console\Kernel;
use Illuminate\Foundation\Application;
use Illuminate\Foundation\Testing\RefreshDatabase;
use Illuminate\Foundation\Testing\TestCase as BaseTestCase;
use Illuminate\Support\Facades\DB;
use Octavox\Core\Bytes\MemorySink;
use Octavox\Core\Testing\DiscCellParts;
use Octavox\Core\Testing\StillMpegVideo;
use Octavox\Core\Testing\VideoDiscWriter;

/** Each test has a home of its own; jobs run at once, in their child processes as ever. */
abstract class TestCase extends BaseTestCase
{
    use RefreshDatabase;

    public string $home = '';

    private int $brought = 0;

    public function createApplication(): Application
    {
        $this->home = sys_get_temp_dir().'/octavox-app-'.getmypid().'-'.bin2hex(random_bytes(4));
        foreach (['', '/uploads', '/sources', '/results', '/shelf', '/journal', '/logs'] as $folder) {
            mkdir($this->home.$folder);
        }
        /** @var Application $app */
        $app = require __DIR__.'/../bootstrap/app.php';
        $app->useEnvironmentPath(__DIR__.'/environment');
        $app->make(Kernel::class)->bootstrap();
        config(['octavox.home' => $this->home, 'octavox.results' => $this->home.'/results',
            'octavox.shelves' => 'Videos='.$this->home.'/shelf']);
        $app->make(Shelves::class)->fence();

        return $app;
    }

    protected function tearDown(): void
    {
        parent::tearDown();
        exec('rm -rf '.escapeshellarg($this->home));
    }

    /** A 16-bit stereo WAV of a rising tone. */
    public static function wave(int $frames = 9600, int $rate = 48000): string
    {
        $data = '';
        for ($index = 0; $index < $frames; $index++) {
            $value = (int) (9000 * sin($index * 0.02 + $index * $index * 0.00002));
            $data .= pack('v2', $value & 0xFFFF, intdiv($value, 2) & 0xFFFF);
        }

        return 'RIFF'.pack('V', 36 + strlen($data)).'WAVEfmt '.pack('VvvVVvv', 16, 1, 2, $rate, 4 * $rate, 4, 16).'data'.pack('V',
            strlen($data)).$data;
    }

    /** Brings bytes in over the upload protocol, as the page does. */
    public function bring(string $name, string $bytes, string $path = '', string $drop = ''): Source
    {
        $created = $this->call('POST', '/uploads', server: $this->headers([
            'Upload-Length' => (string) strlen($bytes),
            'Upload-Metadata' => 'filename '.base64_encode($name).',path '.base64_encode($path).',drop '.base64_encode($drop),
        ]));
        $created->assertCreated();
        if ($bytes !== '') {
            $this->part($created->headers->get('Location'), 0, $bytes)->assertNoContent();
        }

        return Source::query()->with('tracks')->latest('id')->firstOrFail();
    }

    /** A video disc of two titles of a second each, with PCM of which every sample is its number. */
    public static function discImage(): string
    {
        static $image = null;
        if ($image === null) {
            $picture = imagecreatetruecolor(StillMpegVideo::WIDTH, StillMpegVideo::HEIGHT);
            $cell = function (int $seed) use ($picture): DiscCellParts {
                $sound = array_map(fn (int $index): array => [pack('n*', ...array_map(fn (int $sample): int => ($sample + $seed) & 0xFFFF,
                    range(3840 * $index, 3840 * $index + 3839))), 3600 * $index], range(0, 24));

                return new DiscCellParts(StillMpegVideo::group($picture, 25), [$sound]);
            };
            $sink = new MemorySink;
            (new VideoDiscWriter('CHOIR_EVENING', [[4, 0x1A0, 2, 'en', 1]]))->title([$cell(1), $cell(2)])->title([$cell(3)])->image($sink);
            $image = $sink->bytes();
        }

        return $image;
    }

    /** A page as it was written on lines of any length: between two attributes a new line is a space. */
    public function call($method, $uri, $parameters = [], $cookies = [], $files = [], $server = [], $content = null)
    {
        $response = parent::call($method, $uri, $parameters, $cookies, $files, $server, $content);
        $page = $response->baseResponse->getContent();
        if (is_string($page) && str_contains((string) $response->headers->get('Content-Type'), 'html')) {
            $response->baseResponse->setContent((string) preg_replace_callback('/<[a-z](?:[^>"\']|"[^"]*"|\'[^\']*\')*>/i',
                fn (array $tag): string => (string) preg_replace('/\s*\n\s*/', ' ', $tag[0]), $page));
        }

        return $response;
    }

    /** The order sheet that an address of former releases leads to. */
    public function sheet(string $address): \Illuminate\Testing\TestResponse
    {
        return $this->followingRedirects()->get($address);
    }

    /**
     * Fills in an order sheet and places it.
     *
     * @param  array<string, mixed>  $fields
     */
    public function order(array $fields): \Illuminate\Testing\TestResponse
    {
        $this->post('/orders', $fields)->assertRedirect();

        return $this->post('/orders/'.Order::query()->latest('id')->firstOrFail()->id.'/place');
    }

    /**
     * A draft with a line for each name.
     *
     * @param  array<string, mixed>  $fields
     */
    public function draft(array $fields = [], string ...$names): Order
    {
        $ids = [];
        foreach ($names === [] ? ['a.wav', 'b.wav', 'c.wav'] : array_values($names) as $number => $name) {
            // The same content is not taken in twice.
            $ids[] = $this->bring($name, self::wave(4800 + 10 * $number + ++$this->brought))->id;
        }
        $this->post('/orders', ['sources' => implode(',', $ids)] + $fields)->assertRedirect();

        return Order::query()->latest('id')->firstOrFail();
    }

    /** @return list<string> of the first result of each line that a sheet shows, its path beneath the place */
    public function shown(Order $order, string $query = ''): array
    {
        preg_match_all('~<div class="row-out"><h3>([^<]*)</h3>~', (string) $this->get("/orders/$order->id$query")->assertOk()->getContent(),
            $found);

        return array_map(fn (string $one): string => html_entity_decode($one, ENT_QUOTES), $found[1]);
    }

    /** @return list<string> names in the order in which a page lists them */
    public function titles(string $address): array
    {
        preg_match_all('~<td class="name"><a[^>]*>([^<]*)</a>~', (string) $this->get($address)->assertOk()->getContent(), $found);

        return $found[1];
    }

    public function part(string $place, int $offset, string $bytes): \Illuminate\Testing\TestResponse
    {
        return $this->call('PATCH', $place,
            server: $this->headers(['Upload-Offset' => (string) $offset,
                'Content-Type' => 'application/offset+octet-stream']), content: $bytes);
    }

    /**
     * @param  array<string, string>  $headers
     * @return array<string, string>
     */
    public function headers(array $headers): array
    {
        return $this->transformHeadersToServerVars(['Tus-Resumable' => '1.0.0', ...$headers]);
    }

    public function newest(): Upload
    {
        return Upload::query()->latest('created_at')->firstOrFail();
    }

    /** Lets a process hold a row, as if it had taken it. */
    public function hold(WorkKind $kind, int $row, int $process, int $secondsAgo = 0, int $begunAgo = 0): void
    {
        DB::table('claims')->updateOrInsert(['kind' => $kind->value, 'row' => $row], ['worker' => gethostname().':'.$process, 'attempts' => 1,
            'began_at' => time() - $begunAgo, 'signed_at' => time() - $secondsAgo]);
    }

    /** The number of a process that is gone. */
    public static function goneProcess(): int
    {
        $child = proc_open(['true'], [], $pipes);
        $gone = proc_get_status($child)['pid'];
        proc_close($child);

        return $gone;
    }
}
