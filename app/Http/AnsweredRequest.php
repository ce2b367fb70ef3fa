<?php

declare(strict_types=1);

namespace App\Http;

use Illuminate\Database\Eloquent\Model;

/**
 * What a request with an idempotency key was answered: sent again, it gets the same answer and does nothing.
 *
 * @property string $mark  of the token and the key
 * @property string $asked  of the method, the address and the body
 * @property int $status
 * @property array<string, string> $headers
 * @property string $body
 */
final class AnsweredRequest extends Model
{
    public const HOURS = 48;

    protected $guarded = [];

    /** @var array<string, string> */
    protected $casts = ['headers' => 'array', 'status' => 'integer'];
}
