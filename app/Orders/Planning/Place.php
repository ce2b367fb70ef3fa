<?php

declare(strict_types=1);

namespace App\Orders\Planning;

use App\Files\OutsideShelf;
use App\Files\Shelves;
use App\Orders\Models\Order;
use App\Sources\Models\Source;
use Octavox\Core\Order\OutputSpec;

/**
 * Where the results of an order lie: in a folder of their own among the results, beside each source, or in a folder of a shelf that its
 * owner opened for writing. Written as nothing, `beside`, or `shelf:NAME/FOLDER`.
 */
final readonly class Place
{
    private const SHELF = 'shelf:';

    private function __construct(private string $written, private Shelves $shelves) {}

    public static function of(string $written, Shelves $shelves): self
    {
        $isKnown = $written === OutputSpec::BESIDE || str_starts_with($written, self::SHELF);

        return new self($isKnown ? $written : '', $shelves);
    }

    public function written(): string
    {
        return $this->written;
    }

    /** Whether every result lies in a folder that nothing else lies in. */
    public function isOwn(): bool
    {
        return $this->written === '';
    }

    /**
     * The folder for the results of a source.
     *
     * @throws OutsideShelf where the shelf is gone, or is not open for writing any more
     */
    public function folder(Order $order, Source $source): string
    {
        if ($this->written === OutputSpec::BESIDE) {
            // What came by upload lies in a folder of ours, where nobody looks for results.
            return $source->origin === 'shelf' && $this->shelves->holding($source->path)?->isWritable === true
                ? dirname($source->path) : $order->folder();
        }

        return $this->written === '' ? $order->folder() : $this->shelfFolder();
    }

    /**
     * @param  string  $asked  as somebody wrote it
     *
     * @throws OutsideShelf where it is no place that results may lie in
     */
    public function requireThere(string $asked): void
    {
        if ($asked !== $this->written) {
            throw new OutsideShelf(sprintf('“%s” is no place for results: there are nothing, beside, and shelf:NAME/FOLDER.', $asked));
        }
        if (! $this->isOwn() && $this->written !== OutputSpec::BESIDE) {
            $this->shelfFolder();
        }
    }

    /** What somebody should know of where a result of a source lies; empty where it lies where it was asked to. */
    public function note(Source $source): string
    {
        return match (true) {
            $this->written !== OutputSpec::BESIDE, $this->shelves->holding($source->path)?->isWritable === true => '',
            $source->origin === 'upload' => 'It came by upload, so its result lies among the results.',
            $source->origin === 'recorder' => 'It was copied in, so its result lies among the results.',
            default => 'Its shelf is not open for writing, so its result lies among the results.',
        };
    }

    /** @return array<string, string> places that can be chosen, by how they are written */
    public function choices(): array
    {
        $choices = ['' => 'among the results'];
        $writable = $this->shelves->writable();
        if ($writable !== []) {
            $choices[OutputSpec::BESIDE] = 'beside each source';
        }
        foreach ($writable as $shelf) {
            $choices[self::SHELF.$shelf->name] = 'on the shelf '.$shelf->name;
            foreach ($shelf->entries('') as $entry) {
                if ($entry->isFolder) {
                    $choices[self::SHELF.$shelf->name.'/'.$entry->path] = $shelf->name.' / '.$entry->name;
                }
            }
        }

        return $choices + [$this->written => substr($this->written, strlen(self::SHELF))];
    }

    /** @throws OutsideShelf */
    private function shelfFolder(): string
    {
        [$name, $folder] = explode('/', substr($this->written, strlen(self::SHELF)), 2) + ['', ''];
        $shelf = $this->shelves->named($name);
        if ($shelf === null) {
            throw new OutsideShelf(sprintf(
                'There is no shelf %s, so nothing can be put on it; choose another place.', $name));
        }
        if (! $shelf->isWritable) {
            throw new OutsideShelf(sprintf('The shelf %s is not open for writing; choose another place, or let its owner open it.', $name));
        }

        return $shelf->resolve($folder);
    }
}
