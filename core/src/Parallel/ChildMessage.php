<?php

declare(strict_types=1);

namespace Octavox\Core\Parallel;

use Octavox\Core\Failure;
use Octavox\Core\Json\Fields;
use Octavox\Core\Json\PathText;
use Octavox\Core\Media\Phase;

/**
 * One line of what a child of the core says: how far it is, what it found, or why it failed. As JSON:
 * `{"kind":"progress","phase","done","of"}`, `{"kind":"note","note":{…}}` of what is about to be done,
 * `{"kind":"answer","answer":{…}}`, `{"kind":"failure","code","message","path"}`.
 */
final readonly class ChildMessage
{
    /**
     * @param  ?array<array-key, mixed>  $answer
     * @param  ?array{Phase, int, int}  $progress  what is done, how much, of how much
     * @param  ?array<array-key, mixed>  $note
     */
    private function __construct(public ?array $answer = null, public ?array $progress = null, public ?ReportedFailure $failure = null,
        public ?array $note = null) {}

    public static function progressLine(Phase $phase, int $done, int $of): string
    {
        return self::line(['kind' => 'progress', 'phase' => $phase->value, 'done' => $done, 'of' => $of]);
    }

    /** @param  array<array-key, mixed>  $answer */
    public static function answerLine(array $answer): string
    {
        return self::line(['kind' => 'answer', 'answer' => $answer]);
    }

    /** @param  array<array-key, mixed>  $note */
    public static function noteLine(array $note): string
    {
        return self::line(['kind' => 'note', 'note' => $note]);
    }

    public static function failureLine(Failure $failure): string
    {
        return self::line(['kind' => 'failure', 'code' => $failure->code(), 'message' => $failure->getMessage(),
            'path' => $failure->path === null ? null
            : PathText::encode($failure->path)]);
    }

    /** @return ?self null where the line is no message */
    public static function parse(string $line): ?self
    {
        $document = json_decode($line, true);
        if (! is_array($document)) {
            return null;
        }
        $fields = new Fields($document);
        try {
            return match ($fields->text('kind')) {
                'progress' => new self(progress: [Phase::from($fields->text('phase')), $fields->number('done'), $fields->number('of')]),
                'answer' => new self(answer: $fields->map('answer')),
                'note' => new self(note: $fields->map('note')),
                'failure' => new self(failure: ReportedFailure::from($fields->text('code'), $fields->text('message'),
                    $fields->textOrNull('path'))),
                default => null,
            };
        } catch (\UnexpectedValueException|\ValueError) {
            return null;
        }
    }

    /** @param  array<string, mixed>  $document */
    private static function line(array $document): string
    {
        return json_encode($document,
            JSON_THROW_ON_ERROR | JSON_INVALID_UTF8_SUBSTITUTE | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES
            | JSON_PRESERVE_ZERO_FRACTION)."\n";
    }
}
