<?php

declare(strict_types=1);

namespace App\Settings\Actions;

use App\Settings\Models\AccessToken;
use App\Settings\Values\AccessScope;
use App\Settings\Values\SettingRefused;

/** Makes tokens for scripts. */
final class IssueToken
{
    private const RANDOM_BYTES = 32;

    private const MOST = 100;

    private const LONGEST_TITLE = 60;

    /** Before each token, so that it is known wherever it turns up. */
    private const BEFORE = 'octavox_';

    /**
     * @param  list<AccessScope>  $scopes
     * @return string the token; nobody can be told it again
     *
     * @throws SettingRefused
     */
    public function issue(string $title, array $scopes): string
    {
        $title = mb_substr(trim($title), 0, self::LONGEST_TITLE);
        if ($title === '' || $scopes === []) {
            throw new SettingRefused('A token needs a name and at least one thing that it allows; none was made.');
        }
        if (AccessToken::query()->count() >= self::MOST) {
            throw new SettingRefused('There are as many tokens as there may be; take one back first. None was made.');
        }
        $token = self::BEFORE.rtrim(strtr(base64_encode(random_bytes(self::RANDOM_BYTES)), '+/', '-_'), '=');
        AccessToken::query()->create(['title' => $title, 'hash' => AccessToken::hashed($token),
            'scopes' => array_map(fn (AccessScope $scope): string => $scope->value, $scopes)]);

        return $token;
    }

    /** Whoever shows it is not let in any more. */
    public function withdraw(int $number): void
    {
        AccessToken::query()->whereKey($number)->delete();
    }
}
