<?php

declare(strict_types=1);

namespace App\Settings\Values;

use RuntimeException;

/** Something cannot be set; the message is one sentence for whoever wanted it. */
final class SettingRefused extends RuntimeException {}
