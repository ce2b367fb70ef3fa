#!/usr/bin/env bash
# Tests, one part after another; the last line counts them all. Called by ./octavox test, which installs what the parts need.
#
#   (nothing)     every part
#   --fast        style, core and application without what takes long, in under a minute: for every few minutes of work
#   style analysis speed core application browser
#                 these parts
#   FILE…         test files of any part
set -uo pipefail
root="$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)"
cd "$root"
passed=0
failed=0
# What each failed part said, without its rows of dots: repeated before the closing line, where a long log is read first.
recap="$(mktemp)"
export OCTAVOX_TEST_TIMES="${OCTAVOX_TEST_TIMES:-$(mktemp)}"
trap 'rm -rf "$recap" "$OCTAVOX_TEST_TIMES"' EXIT

# Runs a command, shows what it says, and adds what its closing lines count. A test that checks nothing, warns or is skipped has failed.
count() {
    local name="$1" said status
    shift
    echo "=== $name"
    said="$(mktemp)"
    "$@" 2>&1 | sed -u 's/\x1b\[[0-9;]*[A-Za-z]//g' | tee "$said"
    status="${PIPESTATUS[0]}"
    local plain ok bad
    plain="$(grep -E '^ *(Tests: .*)?[0-9]+ (passed|failed|risky|warnings?|notices?|incomplete|skipped|deprecated)' "$said")"
    ok="$(grep -oE '[0-9]+ passed' <<<"$plain" | awk '{ sum += $1 } END { print sum + 0 }')"
    bad="$(grep -oE '[0-9]+ (failed|risky|warnings?|notices?|incomplete|deprecated)' <<<"$plain" | awk '{ sum += $1 } END { print sum + 0 }')"
    if [ "$ok" -eq 0 ] && [ "$bad" -eq 0 ]; then
        # A checker without a count is one test.
        [ "$status" -eq 0 ] && ok=1 || bad=1
    elif [ "$status" -ne 0 ] && [ "$bad" -eq 0 ]; then
        bad=1
    fi
    if [ "$bad" -gt 0 ]; then
        { echo "=== $name: $bad failed"; grep -vE '^ *[.⨯!?s-]+$|^ *✓|^ *$' "$said" | tail -150; } >>"$recap"
    fi
    rm -f "$said"
    passed=$((passed + ok))
    failed=$((failed + bad))
}

processors="$(nproc)"
core() { (cd core && vendor/bin/pest --colors=never --parallel --processes="$processors" "$@"); }
application() { vendor/bin/pest --colors=never --parallel --processes="$processors" "$@"; }

# The five slowest tests of the core and the application; those of the browser stand with their times above.
slowest() {
    [ -s "$OCTAVOX_TEST_TIMES" ] || return 0
    echo "slowest:"
    sort -rn "$OCTAVOX_TEST_TIMES" | head -5
}

part() {
    case "$1" in
        style)
            count "style" vendor/bin/pint --test
            count "style of scripts" node_modules/.bin/biome check
            ;;
        analysis)
            count "static analysis" vendor/bin/phpstan analyse --no-progress --memory-limit=2G
            count "static analysis of tests" vendor/bin/phpstan analyse -c phpstan-tests.neon --no-progress --memory-limit=2G
            ;;
        core) count "core" core ;;
        application) count "application" application ;;
        speed) count "speed" ./octavox bench quick ;;
        browser) count "browser and faults" node_modules/.bin/playwright test -c browser ;;
        --fast)
            count "style" vendor/bin/pint --test
            count "core, fast" core --exclude-group=slow
            count "application" application
            ;;
        browser/*) count "$1" node_modules/.bin/playwright test -c browser "$1" ;;
        core/*) count "$1" core "${1#core/}" ;;
        tests/*) count "$1" application "$1" ;;
        *)
            echo "There is no part and no file $1: style, analysis, speed, core, application, browser, --fast, or the path of a test file." >&2
            exit 2
            ;;
    esac
}

# The core is tested beside the browser, which waits for half of its time, and takes what that leaves of the processors.
beside=""
if [ "$#" -eq 0 ]; then
    set -- style analysis speed application browser
    beside="$(mktemp)"
    trap 'rm -rf "$recap" "$beside" "$OCTAVOX_TEST_TIMES"' EXIT
fi
for name in "$@"; do
    if [ "$name" = browser ] && [ -n "$beside" ]; then
        export OCTAVOX_BROWSERS=1
        OCTAVOX_TEST_TIMES="$beside.times" nice -n 10 bash "$root/bin/test.sh" core >"$beside" 2>&1 &
    fi
    part "$name"
done
if [ -n "$beside" ]; then
    wait
    cat "$beside"
    sed -n '/^=== core: /,$p' "$beside" | sed '$d' >>"$recap"
    closing="$(tail -1 "$beside")"
    if [[ "$closing" =~ ^([0-9]+)\ passed,\ ([0-9]+)\ failed$ ]]; then
        passed=$((passed + BASH_REMATCH[1]))
        failed=$((failed + BASH_REMATCH[2]))
    else
        failed=$((failed + 1))
    fi
fi

slowest
echo
cat "$recap"
echo "$passed passed, $failed failed"
[ "$failed" -eq 0 ] && [ "$passed" -gt 0 ]
