<?php

declare(strict_types=1);

namespace Octavox\Core\Tests\Support;

use PHPUnit\Event\Test\Finished;
use PHPUnit\Event\Test\FinishedSubscriber;
use PHPUnit\Event\Test\PreparationStarted;
use PHPUnit\Event\Test\PreparationStartedSubscriber;
use PHPUnit\Runner\Extension\Extension;
use PHPUnit\Runner\Extension\Facade;
use PHPUnit\Runner\Extension\ParameterCollection;
use PHPUnit\TextUI\Configuration\Configuration;

/** Writes down how long each test took, for whoever wants to know the slowest: seconds and its name, a line each. */
final class SlowTests implements Extension
{
    /** Names the file; without it nothing is written. */
    private const VARIABLE = 'OCTAVOX_TEST_TIMES';

    private const LEAST_SECONDS = 1.0;

    public function bootstrap(Configuration $configuration, Facade $facade, ParameterCollection $parameters): void
    {
        $path = (string) getenv(self::VARIABLE);
        if ($path === '') {
            return;
        }
        $clock = new class($path, self::LEAST_SECONDS) implements FinishedSubscriber
        {
            public float $began = 0.0;

            public function __construct(private readonly string $path, private readonly float $least) {}

            public function notify(Finished $event): void
            {
                $seconds = $event->telemetryInfo()->durationSinceStart()->asFloat() - $this->began;
                $name = mb_scrub(strtr($event->test()->name(), ['__pest_evaluable_' => '', '_' => ' ']));
                if ($seconds >= $this->least) {
                    file_put_contents($this->path, sprintf("%8.1f s  %s\n", $seconds, mb_substr($name, 0, 110)), FILE_APPEND);
                }
            }
        };
        $facade->registerSubscribers($clock, new class($clock) implements PreparationStartedSubscriber
        {
            public function __construct(private readonly object $clock) {}

            public function notify(PreparationStarted $event): void
            {
                $this->clock->began = $event->telemetryInfo()->durationSinceStart()->asFloat();
            }
        });
    }
}
