<?php

declare(strict_types=1);

namespace Octavox\Core\Make;

use Octavox\Core\Codec\Packet;
use Octavox\Core\Codec\SoundForm;
use Octavox\Core\Container\Segment;
use Octavox\Core\Container\Timeline;
use Octavox\Core\Container\Track;
use Octavox\Core\Json\Fields;
use Octavox\Core\Plan\StoredForm;
use Octavox\Core\Sound\LevelMeter;

/**
 * Decodes what is being encoded while it is being encoded, in a process of its own, so that one long result uses a second
 * processor. Whatever befalls that process costs nothing but time: the result is then decoded after it was written.
 */
final class Listener
{
    /** Shorter results are decoded faster than a process begins. */
    private const SECONDS_WORTH_IT = 45;

    /** Bytes that are collected before they are sent. */
    private const TOGETHER = 65_536;

    private string $waiting = '';

    private bool $lost = false;

    /**
     * @param  resource  $process
     * @param  resource  $input
     * @param  resource  $output
     */
    private function __construct(private readonly int $delay, private $process, private $input, private $output)
    {
    }

    public function __destruct()
    {
        foreach ([$this->input, $this->output] as $pipe) {
            if (is_resource($pipe)) {
                fclose($pipe);
            }
        }
        if (is_resource($this->process)) {
            proc_terminate($this->process, SIGKILL);
            proc_close($this->process);
        }
    }

    /**
     * Null where it is not worth it, or where no process can be started.
     *
     * @param  int  $delay  decoded samples that are not presented before the first
     * @param  int  $samples  that are presented
     */
    public static function start(SoundForm $form, int $delay, int $samples): ?self
    {
        if ($samples < self::SECONDS_WORTH_IT * $form->rate || Crew::ofThisMachine()->hands() < 2) {
            return null;
        }
        $pipes = [];
        $process = proc_open(CoreScript::command('listener', 128), [['pipe', 'r'], ['pipe', 'w'], ['file', '/dev/null', 'w']], $pipes);
        if (! is_resource($process)) {
            return null;
        }
        $listener = new self($delay, $process, $pipes[0], $pipes[1]);
        $listener->waiting = json_encode([...StoredForm::fields($form), 'config' => bin2hex($form->config), 'delay' => $delay, 'samples' => $samples], JSON_THROW_ON_ERROR)."\n";

        return $listener;
    }

    public function take(Packet $packet): void
    {
        if ($packet->config !== null) {
            $this->lost = true;
        }
        if (! $this->lost) {
            $this->waiting .= PipedPackets::pack($packet);
            if (strlen($this->waiting) > self::TOGETHER) {
                $this->send();
            }
        }
    }

    /**
     * What was heard, once all packets were taken; null where the listener was lost.
     *
     * @param  SoundForm  $form  as it stands in the result, with what only the end tells
     */
    public function finish(SoundForm $form): ?Heard
    {
        $this->send();
        fclose($this->input);
        $said = $this->lost ? null : json_decode((string) stream_get_contents($this->output), true);
        if (! is_array($said)) {
            return null;
        }
        try {
            return Heard::fromFields(new Fields($said), $form, $this->delay);
        } catch (\UnexpectedValueException) {
            return null;
        }
    }

    /**
     * The other end: reads the form and the packets, and says what they decode to.
     *
     * @param  resource  $input
     * @return array<string, mixed>
     */
    public static function listen($input): array
    {
        $order = json_decode((string) fgets($input), true, 16, JSON_THROW_ON_ERROR);
        $fields = new Fields(is_array($order) ? $order : []);
        $form = StoredForm::read($fields)->withConfig((string) hex2bin($fields->text('config')));
        $segment = Segment::media($fields->number('delay'), $fields->number('samples'));
        $track = Track::sound(1, $form, Timeline::edited(0, [$segment], $segment->from + $segment->length), 0);
        $packets = new PipedPackets($input, $track);
        $meter = new LevelMeter;
        $hash = hash_init('xxh128');
        $frames = 0;
        foreach ((new SoundFeed($packets, $track))->blocks([$segment]) as $block) {
            $meter->measure($block);
            if ($form->width > 0) {
                hash_update($hash, $block->bytes());
            }
            $frames += $block->frames;
        }

        return (new Heard($packets->hash(), $frames, $meter->level(), hash_final($hash), $form, $fields->number('delay')))->toArray();
    }

    private function send(): void
    {
        // A pipe whose other end is gone says so with a notice; the count tells the same.
        set_error_handler(fn (): bool => true);
        try {
            for ($at = 0; ! $this->lost && $at < strlen($this->waiting); $at += $sent) {
                $sent = (int) fwrite($this->input, $at === 0 ? $this->waiting : substr($this->waiting, $at));
                $this->lost = $sent === 0;
            }
        } finally {
            restore_error_handler();
        }
        $this->waiting = '';
    }
}
