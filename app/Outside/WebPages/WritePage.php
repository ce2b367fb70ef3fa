<?php

declare(strict_types=1);

namespace App\Outside\WebPages;

use App\Files\Folder;
use App\Results\Models\Result;
use Illuminate\Support\Collection;
use Octavox\Core\Bytes\BytesMissing;
use Octavox\Core\Bytes\FileUnreadable;
use Octavox\Core\Name\NumberedName;
use Octavox\Core\Plan\PlanUnreadable;

/** Puts a page with a player beside the results that it plays. */
final class WritePage
{
    private const MOST_NUMBERS = 1000;

    public function __construct(private readonly WebPage $page) {}

    /**
     * @param  Collection<int, Result>  $results
     * @return string what came of it, in one sentence
     *
     * @throws PlanUnreadable
     * @throws BytesMissing
     * @throws FileUnreadable
     */
    public function beside(Collection $results, PageChoices $choices): string
    {
        $folders = $results->map(fn (Result $one): string => dirname((string) $one->path))->unique()->values();
        if ($folders->count() !== 1) {
            return 'These results lie in several folders, so there is no place beside all of them; take the archive.';
        }
        $html = $this->page->html($results, $choices);
        for ($number = 1; $number < self::MOST_NUMBERS; $number++) {
            $path = $folders[0].'/'.NumberedName::write(WebPage::name($choices), $number);
            if (! file_exists($path)) {
                Folder::write($path, $html);

                return 'The page lies beside its sound: '.$path;
            }
        }

        return 'There are too many pages of this name already; choose another title.';
    }
}
