<?php

declare(strict_types=1);

namespace App\Outside\Catalogue;

use GuzzleHttp\Client;
use GuzzleHttp\Exception\GuzzleException;

/** A catalogue that is asked over HTTP; it is given little time, and no more of its answer is read than one can have. */
final readonly class HttpCatalogue implements Catalogue
{
    private const MOST_BYTES = 1_000_000;

    private const MOST_COVER = 10_000_000;

    private const SECONDS = 6;

    private const SECONDS_TO_CONNECT = 2;

    private const MOST_CANDIDATES = 10;

    /** @param  string  $address  without a slash at its end */
    public function __construct(private string $address) {}

    public function byDisc(array $offsets, int $leadout): array
    {
        return $this->candidates('GET', '/disc?'.http_build_query(['offsets' => implode(',', $offsets), 'leadout' => $leadout]));
    }

    public function bySound(string $fingerprint): array
    {
        return $this->candidates('POST', '/sound', $fingerprint);
    }

    public function byWords(string $words): array
    {
        return $this->candidates('GET', '/words?'.http_build_query(['q' => mb_substr($words, 0, 200)]));
    }

    public function cover(string $name): string
    {
        return $this->ask('GET', '/cover/'.rawurlencode($name), '', self::MOST_COVER);
    }

    /**
     * @return list<Candidate>
     *
     * @throws CatalogueFailed
     */
    private function candidates(string $method, string $path, string $body = ''): array
    {
        $document = json_decode($this->ask($method, $path, $body, self::MOST_BYTES), true, 32);
        if (! is_array($document) || ! is_array($document['candidates'] ?? null)) {
            throw CatalogueFailed::strange();
        }
        $candidates = array_values(array_filter(array_map(Candidate::of(...), array_slice(array_values($document['candidates']), 0,
            self::MOST_CANDIDATES)), fn (?Candidate $one): bool => $one !== null));
        usort($candidates, fn (Candidate $one, Candidate $other): int => $other->confidence <=> $one->confidence);

        return $candidates;
    }

    /** @throws CatalogueFailed */
    private function ask(string $method, string $path, string $body, int $most): string
    {
        $until = microtime(true) + self::SECONDS;
        try {
            $response = (new Client)->request($method, $this->address.$path, ['body' => $body, 'stream' => true, 'http_errors' => false,
                'allow_redirects' => false, 'timeout' => self::SECONDS, 'read_timeout' => self::SECONDS,
                'connect_timeout' => self::SECONDS_TO_CONNECT, 'proxy' => '', 'headers' => ['Accept' => 'application/json, image/*']]);
            if ($response->getStatusCode() !== 200) {
                throw CatalogueFailed::strange();
            }
            $bytes = '';
            while (! $response->getBody()->eof()) {
                $bytes .= $response->getBody()->read(65_536);
                if (strlen($bytes) > $most) {
                    throw CatalogueFailed::strange();
                }
                if (microtime(true) > $until) {
                    throw CatalogueFailed::offline();
                }
            }

            return $bytes;
        } catch (GuzzleException|\RuntimeException $failed) {
            throw $failed instanceof CatalogueFailed ? $failed : CatalogueFailed::offline();
        }
    }
}
