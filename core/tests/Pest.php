<?php

declare(strict_types=1);

use Octavox\Core\Tests\Support\Scratch;

afterAll(fn () => Scratch::clear());

// What takes long: thousands of damaged files, long sounds, other encoders, processes that are killed. `./octavox test --fast` leaves it
// out.
pest()->group('slow')->in('MutationTest.php', 'BadInputTest.php', 'SecondLookTest.php', 'JoiningTest.php', 'ForeignCodecTest.php',
    'MakeTest.php', 'VideoTest.php');
