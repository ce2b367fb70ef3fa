<?php

declare(strict_types=1);

/*
 * Makes a cover of a picture: JPEG, turned as the camera was held, on white, its longer side at most so many pixels.
 * Says the bytes; ends with 2 where it is no picture that can be read, and says nothing then.
 */

[, $path, $side] = $argv;
$facts = @getimagesize($path);
$types = [IMAGETYPE_JPEG, IMAGETYPE_PNG, IMAGETYPE_GIF, IMAGETYPE_WEBP];
// Each pixel takes four bytes while it is worked on.
if ($facts === false || ! in_array($facts[2], $types, true) || $facts[0] < 1 || $facts[1] < 1 || $facts[0] * $facts[1] > 40_000_000) {
    exit(2);
}
$image = @imagecreatefromstring((string) file_get_contents($path));
if ($image === false) {
    exit(2);
}
$notes = $facts[2] === IMAGETYPE_JPEG && function_exists('exif_read_data') ? @exif_read_data($path) : [];
$angle = [3 => 180, 6 => -90, 8 => 90][is_array($notes) ? $notes['Orientation'] ?? 1 : 1] ?? 0;
if ($angle !== 0) {
    $image = imagerotate($image, $angle, 0) ?: $image;
}
[$width, $height] = [imagesx($image), imagesy($image)];
$scale = min(1.0, max(1, (int) $side) / max($width, $height));
[$toWidth, $toHeight] = [max(1, (int) round($width * $scale)), max(1, (int) round($height * $scale))];
$cover = imagecreatetruecolor($toWidth, $toHeight);
imagefill($cover, 0, 0, (int) imagecolorallocate($cover, 255, 255, 255));
imagecopyresampled($cover, $image, 0, 0, 0, 0, $toWidth, $toHeight, $width, $height);
imageinterlace($cover, false);
imagejpeg($cover, null, 88);
