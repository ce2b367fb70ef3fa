<?php

declare(strict_types=1);

namespace App\Api;

/** A whole job by script, as lines for a shell; each goes on with what the one before found out. */
final class Examples
{
    /** @return list<array{string, string}> what it does, and the lines */
    public static function all(string $address): array
    {
        return [
            ['Who asks, and where', <<<SHELL
                TOKEN=octavox_…
                OCTAVOX=$address/api/v1
                ask() { curl --silent --show-error --header "Authorization: Bearer \$TOKEN" "\$@"; }
                SHELL],
            ['Bring a file in', <<<'SHELL'
                FILE="Lift hall.wav"
                UPLOAD=$(ask --include --request POST "$OCTAVOX/uploads" --header "Tus-Resumable: 1.0.0" \
                  --header "Upload-Length: $(wc -c < "$FILE")" --header "Upload-Metadata: filename $(printf %s "$FILE" | base64 -w0)" \
                  | tr -d '\r' | sed -n 's/^Location: //p')
                SOURCE=$(ask --include --request PATCH "$UPLOAD" --header "Tus-Resumable: 1.0.0" --header "Upload-Offset: 0" \
                  --header "Content-Type: application/offset+octet-stream" --header "Expect:" --upload-file "$FILE" \
                  | tr -d '\r' | sed -n 's/^Octavox-Source: //p')
                SHELL],
            ['See what is in it, once it is read', <<<'SHELL'
                until ask --fail --output reading.json "$OCTAVOX/sources/$SOURCE/reading"; do sleep 1; done
                cat reading.json
                SHELL],
            ['What stops it on a web page, and the least that helps', <<<'SHELL'
                ask "$OCTAVOX/destinations/web-page/fits?sources=$SOURCE"
                SHELL],
            ['What would be made', <<<'SHELL'
                ask "$OCTAVOX/plans" --json "{\"sources\": [$SOURCE], \"spec\": {\"container\": \"flac\"}}"
                SHELL],
            ['Order it, once however often this is sent', <<<'SHELL'
                ORDER=$(ask "$OCTAVOX/orders" --header "Idempotency-Key: hall-1" \
                  --json "{\"sources\": [$SOURCE], \"spec\": {\"container\": \"flac\"}, \"title\": \"Hall\"}" \
                  | sed 's/^{"id":\([0-9]*\).*/\1/')
                SHELL],
            ['Hear what happens until it is done', <<<'SHELL'
                ask --no-buffer "$OCTAVOX/events?order=$ORDER&since=0&seconds=30" | sed '/"state":"\(done\|failed\)"/q' || true
                SHELL],
            ['Fetch the result', <<<'SHELL'
                RESULT=$(ask "$OCTAVOX/orders/$ORDER/results" | sed 's/^{"items":\[{"id":\([0-9]*\).*/\1/')
                ask --remote-name --remote-header-name "$OCTAVOX/results/$RESULT/file"
                SHELL],
        ];
    }
}
