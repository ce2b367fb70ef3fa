<?php

declare(strict_types=1);

namespace App\Files;

/** Somebody asked for what is not on the shelf. */
final class OutsideShelf extends \RuntimeException {}
