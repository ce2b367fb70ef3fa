<?php

declare(strict_types=1);

namespace App\Http;

use Symfony\Component\HttpKernel\Exception\HttpException;

/** The drive of the home has no room for what was asked to be kept: RFC 4918, 11.5 (507, Insufficient Storage). */
final class NoRoom extends HttpException
{
    public function __construct(?\Throwable $why = null)
    {
        parent::__construct(507, 'The drive is full.', $why);
    }
}
