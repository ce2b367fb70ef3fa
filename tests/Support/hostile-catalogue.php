<?php

declare(strict_types=1);

/* A catalogue that answers as it must not: the way stands first in its path. */

$way = explode('/', trim((string) parse_url((string) $_SERVER['REQUEST_URI'], PHP_URL_PATH), '/'))[0];
header('Content-Type: application/json');
switch ($way) {
    case 'slow':
        sleep(30);
        break;
    case 'endless':
        echo '{"candidates": [';
        for ($time = 0; $time < 100_000 && ! connection_aborted(); $time++) {
            echo str_repeat('{"fields": {"title": "x"}},', 1000);
            flush();
        }
        break;
    case 'elsewhere':
        header('Location: file:///etc/passwd', true, 302);
        break;
    case 'error':
        http_response_code(500);
        echo '{"candidates": []}';
        break;
    case 'nonsense':
        echo '<html><script>alert(1)</script>';
        break;
    case 'hostile':
        if (str_contains((string) $_SERVER['REQUEST_URI'], '/cover/')) {
            echo '<?php echo "no picture";';
            break;
        }
        echo json_encode(['candidates' => [
            ['confidence' => 7, 'fields' => ['title' => "<script>alert(1)</script>\r\nX-Evil: 1".str_repeat('A', 100_000),
                'artist' => ['no', 'text'], 'album' => "\u{202E}Steam", 'path' => '/etc/passwd', 'year' => 2026], 'tracks' => array_fill(0, 500, ['title' => 'x']),
                'cover' => '../../etc/passwd'],
            ['confidence' => -3, 'fields' => ['title' => 'Second'], 'tracks' => 'none', 'cover' => 'evil'], 'text', null, ['fields' => 5],
            ['fields' => []]]]);
        break;
    default:
        http_response_code(404);
}
