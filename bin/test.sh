#!/usr/bin/env bash
# Every test there is, one after another; the last line counts them all. Called by ./octavox test, which installs first.
set -uo pipefail
root="$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)"
cd "$root"
passed=0
failed=0

# Runs a command, shows what it says, and adds what its closing lines count.
count() {
    local name="$1" said status
    shift
    echo "=== $name"
    said="$(mktemp)"
    "$@" 2>&1 | tee "$said"
    status="${PIPESTATUS[0]}"
    local plain ok bad
    plain="$(sed 's/\x1b\[[0-9;]*m//g' "$said")"
    rm -f "$said"
    ok="$(grep -E '^ *(Tests: .*)?[0-9]+ (passed|warnings?,|notices?,)' <<<"$plain" | grep -oE '[0-9]+ (passed|warnings?|notices?|risky)' | awk '{ sum += $1 } END { print sum + 0 }')"
    bad="$(grep -E '^ *(Tests: .*)?[0-9]+ failed' <<<"$plain" | grep -oE '[0-9]+ failed' | awk '{ sum += $1 } END { print sum + 0 }')"
    if [ "$ok" -eq 0 ] && [ "$bad" -eq 0 ]; then
        # A checker without a count is one test.
        [ "$status" -eq 0 ] && ok=1 || bad=1
    elif [ "$status" -ne 0 ] && [ "$bad" -eq 0 ]; then
        bad=1
    fi
    passed=$((passed + ok))
    failed=$((failed + bad))
}

only="${1:-all}"
wants() { [ "$only" = all ] || [ "$only" = "$1" ]; }

wants style && count "style" vendor/bin/pint --test
wants analysis && count "static analysis" vendor/bin/phpstan analyse --no-progress --memory-limit=1G
wants core && count "core" bash -c 'cd core && vendor/bin/pest --colors=never --parallel --processes=2'
wants application && count "application" vendor/bin/pest --colors=never
wants browser && count "browser and faults" node_modules/.bin/playwright test -c browser

echo
echo "$passed passed, $failed failed"
[ "$failed" -eq 0 ]
