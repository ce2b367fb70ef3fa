<?php

declare(strict_types=1);

namespace App\Http;

use App\Orders\Values\FormatMenu;
use App\Orders\Values\OnFailure;
use App\Settings\Values\SourceCare;
use Octavox\Core\Container\Capabilities;
use Octavox\Core\Container\OutputFormat;
use Octavox\Core\Container\Raw\HeaderlessFormat;
use Octavox\Core\Container\Video\VideoOutputFormat;
use Octavox\Core\Container\Video\VideoOutputs;
use Octavox\Core\Order\Quality;

/** What views offer to choose from, whatever page it is: `$offer` in each of them. */
final class ViewChoices
{
    /** @return array<string, list<OutputFormat|VideoOutputFormat>> by the name of their group */
    public function formats(): array
    {
        return FormatMenu::groups();
    }

    /** @return non-empty-list<VideoOutputFormat> */
    public function videos(): array
    {
        return VideoOutputs::all();
    }

    /** @return list<Quality> */
    public function qualities(Capabilities $capabilities): array
    {
        return Quality::offered($capabilities);
    }

    /** @return array<string, string> kinds of bytes without a header, in words */
    public function headerless(): array
    {
        return HeaderlessFormat::kinds();
    }

    /** @return list<OnFailure> */
    public function onFailure(): array
    {
        return OnFailure::cases();
    }

    /** @return list<SourceCare> */
    public function cares(): array
    {
        return SourceCare::cases();
    }
}
