<?php

declare(strict_types=1);

namespace App\Outside\Publishing;

/**
 * A feed in RSS 2.0 (RSS Advisory Board) with what open standards add to it: `atom:link` to itself (RFC 4287), `media:content` with the
 * duration (Media RSS 1.5.1), `podcast:guid`, `podcast:medium` and `podcast:person` (the podcast namespace 1.0).
 */
final class Feed
{
    /** By which the guid of a podcast is made of its address: the podcast namespace, `podcast:guid`. */
    private const NAMESPACE = 'ead4c236-bf58-58c6-a2c6-a6b28d128cb6';

    /**
     * @param  list<Episode>  $episodes  the newest first
     * @param  string  $base  address beneath which feed and episodes are served, without a slash at its end
     */
    public static function write(Show $show, array $episodes, string $base): string
    {
        $xml = new \XMLWriter;
        $xml->openMemory();
        $xml->setIndent(true);
        $xml->startDocument('1.0', 'UTF-8');
        $xml->startElement('rss');
        foreach (['version' => '2.0', 'xmlns:atom' => 'http://www.w3.org/2005/Atom', 'xmlns:media' => 'http://search.yahoo.com/mrss/',
            'xmlns:podcast' => 'https://podcastindex.org/namespace/1.0'] as $name => $value) {
            $xml->writeAttribute($name, $value);
        }
        $xml->startElement('channel');
        foreach (['title' => $show->title, 'link' => $show->address, 'description' => $show->description, 'language' => $show->language,
            'lastBuildDate' => date(DATE_RSS, $episodes[0]->published ?? 0), 'generator' => 'Octavox'] as $name => $text) {
            $xml->writeElement($name, self::plain($text));
        }
        self::element($xml, 'atom:link', ['href' => $base.'/feed.xml', 'rel' => 'self', 'type' => 'application/rss+xml']);
        $xml->writeElement('podcast:guid', self::guid($show->address.'/feed.xml'));
        $xml->writeElement('podcast:medium', 'podcast');
        if ($show->author !== '') {
            $xml->writeElement('podcast:person', self::plain($show->author));
        }
        foreach ($episodes as $episode) {
            self::item($xml, $base, $episode);
        }
        $xml->endElement();
        $xml->endElement();
        $xml->endDocument();

        return $xml->outputMemory();
    }

    private static function item(\XMLWriter $xml, string $base, Episode $episode): void
    {
        $address = $base.'/'.rawurlencode($episode->file);
        $xml->startElement('item');
        foreach (['title' => $episode->title, 'description' => $episode->description,
            'pubDate' => date(DATE_RSS, $episode->published)] as $name => $text) {
            $xml->writeElement($name, self::plain($text));
        }
        $xml->startElement('guid');
        $xml->writeAttribute('isPermaLink', 'false');
        $xml->text($episode->guid);
        $xml->endElement();
        self::element($xml, 'enclosure', ['url' => $address, 'length' => (string) $episode->bytes, 'type' => $episode->type]);
        self::element($xml, 'media:content', ['url' => $address, 'fileSize' => (string) $episode->bytes, 'type' => $episode->type,
            'medium' => 'audio', 'duration' => (string) (int) round($episode->seconds)]);
        $xml->endElement();
    }

    /** @param  array<string, string>  $attributes */
    private static function element(\XMLWriter $xml, string $name, array $attributes): void
    {
        $xml->startElement($name);
        foreach ($attributes as $attribute => $value) {
            $xml->writeAttribute($attribute, $value);
        }
        $xml->endElement();
    }

    /** XML 1.0, 2.2: characters that no document may hold are left out. */
    private static function plain(string $text): string
    {
        return (string) preg_replace('/[^\x{9}\x{A}\x{D}\x{20}-\x{D7FF}\x{E000}-\x{FFFD}\x{10000}-\x{10FFFF}]/u', '', mb_scrub($text));
    }

    /** RFC 4122, 4.3, version 5: of the address without its scheme. */
    private static function guid(string $address): string
    {
        $hash = sha1(hex2bin(str_replace('-', '', self::NAMESPACE)).preg_replace('~^https?://~', '', $address));

        return sprintf('%s-%s-5%s-%04x-%s', substr($hash, 0, 8), substr($hash, 8, 4), substr($hash, 13, 3),
            hexdec(substr($hash, 16, 4)) & 0x3FFF | 0x8000, substr($hash, 20, 12));
    }
}
