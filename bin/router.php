<?php

declare(strict_types=1);

// For PHP's own web server: what ships in public/ is given as it is, everything else goes to the application.

use App\Http\AnswerHeaders;
use App\Http\Middleware\BoundedSending;
use App\Settings\Values\TrustedHosts;

require_once __DIR__.'/../app/Http/Middleware/BoundedSending.php';
require_once __DIR__.'/../app/Http/AnswerHeaders.php';
require_once __DIR__.'/../app/Settings/Values/TrustedHosts.php';

const TYPES = ['css' => 'text/css; charset=utf-8', 'js' => 'text/javascript; charset=utf-8', 'svg' => 'image/svg+xml',
    'woff2' => 'font/woff2', 'png' => 'image/png'];

$sendHeaders = function (): void {
    foreach (AnswerHeaders::ALL as $name => $value) {
        header("$name: $value");
    }
};
$root = (string) realpath(__DIR__.'/../public');
$path = rawurldecode((string) parse_url(is_string($_SERVER['REQUEST_URI']) ? $_SERVER['REQUEST_URI'] : '/', PHP_URL_PATH));
$type = TYPES[pathinfo($path, PATHINFO_EXTENSION)] ?? null;
// Whatever lies outside, or leads there, is answered as if it did not exist.
$file = $type === null || str_contains($path, "\0") ? false : realpath($root.$path);
$names = TrustedHosts::fromSettings(getenv('OCTAVOX_NAMES') ?: '', getenv('OCTAVOX_PORT') === false ? null : (int) getenv('OCTAVOX_PORT'));
if ($file !== false && str_starts_with($file, $root.'/') && is_file($file) && $names->host(is_string($_SERVER['HTTP_HOST'] ?? null)
    ? $_SERVER['HTTP_HOST'] : '')) {
    $sendHeaders();
    $mark = '"'.dechex((int) filemtime($file)).'-'.dechex((int) filesize($file)).'"';
    header('Content-Type: '.$type);
    header('Cache-Control: no-cache');
    header('ETag: '.$mark);
    if (($_SERVER['HTTP_IF_NONE_MATCH'] ?? '') === $mark) {
        http_response_code(304);
    } elseif (in_array($_SERVER['REQUEST_METHOD'], ['GET', 'HEAD'], true)) {
        header('Content-Length: '.filesize($file));
        readfile($file);
    } else {
        http_response_code(405);
    }

    return true;
}
$visitor = BoundedSending::visitor(is_string($_SERVER['REMOTE_ADDR']) ? $_SERVER['REMOTE_ADDR'] : '',
    $_COOKIE['octavox-'.getenv('OCTAVOX_PORT')] ?? '');
if (($_SERVER['REQUEST_METHOD'] ?? '') === 'GET' && BoundedSending::isRefused($path, $visitor, getenv('OCTAVOX_HOME').'/locks')) {
    $sendHeaders();
    http_response_code(503);
    header('Retry-After: '.BoundedSending::SECONDS_TO_WAIT);
    header('Content-Type: text/plain; charset=utf-8');
    echo "As much sound is being sent as can be at once; try again in a few seconds.\n";

    return true;
}
// The application sees the address as it was asked for, never a file of that name.
$_SERVER['SCRIPT_NAME'] = '/index.php';
$_SERVER['PHP_SELF'] = '/index.php';
$_SERVER['SCRIPT_FILENAME'] = $root.'/index.php';
require $root.'/index.php';
