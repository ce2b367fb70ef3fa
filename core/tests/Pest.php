<?php

declare(strict_types=1);

use Octavox\Core\Tests\Support\Scratch;

afterAll(fn () => Scratch::clear());
