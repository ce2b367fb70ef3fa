<?php

declare(strict_types=1);

namespace Octavox\Core\Tests\Support;

/** An independent party: whole files read and written by the sample library itself. */
final class SampleLibrary
{
    /** @return array{}|array{int, int, int, list<list<float>>} frames, rate, channels, the first thousand samples of each channel */
    public static function read(string $path): array
    {
        $library = self::open();
        $info = $library->new('SF_INFO');
        $file = $library->sf_open($path, 0x10, \FFI::addr($info));
        if ($file === null) {
            return [];
        }
        $count = min(1000, $info->frames);
        $room = \FFI::new('float['.max(1, $count * $info->channels).']');
        $library->sf_readf_float($file, $room, $count);
        $channels = array_fill(0, $info->channels, []);
        for ($index = 0; $index < $count * $info->channels; $index++) {
            $channels[$index % $info->channels][] = $room[$index];
        }
        $library->sf_close($file);

        return [$info->frames, $info->samplerate, $info->channels, array_values($channels)];
    }

    /**
     * @param  int  $format  sndfile.h: container and sub-type joined
     * @param  list<list<float>>  $channels
     */
    public static function write(string $path, int $format, array $channels, int $rate = 48000): string
    {
        $library = self::open();
        $info = $library->new('SF_INFO');
        $info->samplerate = $rate;
        $info->channels = count($channels);
        $info->format = $format;
        $file = $library->sf_open($path, 0x20, \FFI::addr($info));
        if ($file === null) {
            throw new \LogicException('The library refuses to write that.');
        }
        $frames = count($channels[0]);
        $room = \FFI::new('float['.$frames * count($channels).']');
        foreach ($channels as $channel => $samples) {
            foreach ($samples as $frame => $sample) {
                $room[$frame * count($channels) + $channel] = $sample;
            }
        }
        $library->sf_writef_float($file, $room, $frames);
        $library->sf_close($file);

        return $path;
    }

    /** @return array<string, string|int> the fields of Broadcast WAV; empty where there are none */
    public static function broadcast(string $path): array
    {
        $library = self::open();
        $info = $library->new('SF_INFO');
        $file = $library->sf_open($path, 0x10, \FFI::addr($info));
        // sndfile.h: SF_BROADCAST_INFO
        $said = \FFI::cdef()->new('struct { char description[256]; char originator[32]; char reference[32]; char date[10]; char time[8];
            uint32_t low; uint32_t high; short version; char umid[64]; short loudness[5]; char reserved[180]; uint32_t bytes;
            char history[256]; }');
        $is = $library->sf_command($file, 0x10F0, \FFI::addr($said), \FFI::sizeof($said));
        $library->sf_close($file);
        $text = fn (\FFI\CData $field): string => explode("\0", \FFI::string($field, \FFI::sizeof($field)))[0];

        return $is !== 1 ? [] : ['description' => $text($said->description), 'originator' => $text($said->originator),
            'reference' => $text($said->reference), 'date' => $text($said->date), 'time' => $text($said->time),
            'samples' => $said->high << 32 | $said->low, 'history' => $text($said->history)];
    }

    private static function open(): \FFI
    {
        return \FFI::cdef('typedef struct { int64_t frames; int samplerate; int channels; int format; int sections; int seekable; } '
            .'SF_INFO; void *sf_open(const char *path, int mode, SF_INFO *info); int64_t sf_readf_float(void *f, float *to, int64_t '
                .'frames); int64_t sf_writef_float(void *f, const float *from, int64_t frames); int sf_close(void *f); '
            .'int sf_command(void *f, int command, void *data, int bytes);', 'libsndfile.so.1');
    }
}
