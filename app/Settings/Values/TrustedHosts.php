<?php

declare(strict_types=1);

namespace App\Settings\Values;

/** The names under which this server is asked: those of this machine itself, and what its owner adds. */
final readonly class TrustedHosts
{
    private const LOCAL = ['localhost', '127.0.0.1', '[::1]'];

    /**
     * @param  list<string>  $more  further names, without port
     * @param  ?int  $port  null where any will do
     */
    public function __construct(private array $more, private ?int $port) {}

    /** @param  string  $setting  names separated by commas */
    public static function fromSettings(string $setting, ?int $port): self
    {
        return new self(array_values(array_filter(array_map(fn (string $name): string => strtolower(trim($name)), explode(',', $setting)),
            fn (string $name): bool => $name !== '')), $port);
    }

    /** Whether a `Host` header names this server. */
    public function host(string $host): bool
    {
        if (preg_match('/^([a-z0-9.-]+|\[[0-9a-f:]+\])(?::(\d{1,5}))?$/i', $host, $parts) !== 1) {
            return false;
        }
        $name = strtolower($parts[1]);

        return in_array($name, $this->more, true) || in_array($name, self::LOCAL, true)
            && ($this->port === null || (int) ($parts[2] ?? 80) === $this->port);
    }

    /** Whether an `Origin` header is that of a page of ours. */
    public function origin(string $origin): bool
    {
        return preg_match('#^https?://(.+)$#i', $origin, $parts) === 1 && $this->host($parts[1]);
    }
}
