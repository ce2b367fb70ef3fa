<?php

declare(strict_types=1);

namespace App\Settings\Models;

use App\Settings\Values\AccessScope;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Support\Carbon;

/**
 * What a script shows to be let in; only its hash is kept.
 *
 * @property int $id
 * @property string $title
 * @property string $hash
 * @property list<string> $scopes
 * @property ?Carbon $used_at
 * @property Carbon $created_at
 */
final class AccessToken extends Model
{
    protected $guarded = [];

    /** @var array<string, string> */
    protected $casts = ['scopes' => 'array', 'used_at' => 'datetime'];

    /** SHA-256: a token is random and long, so that nobody finds it by trying. */
    public static function hashed(string $token): string
    {
        return hash('sha256', $token);
    }

    public function may(AccessScope $scope): bool
    {
        return in_array($scope->value, $this->scopes, true);
    }

    /** @return list<string> what it may, in words */
    public function mays(): array
    {
        return array_values(array_map(fn (AccessScope $scope): string => $scope->label(),
            array_filter(AccessScope::cases(), $this->may(...))));
    }
}
