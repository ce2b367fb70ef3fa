<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Name\Signs;
use Octavox\Core\Order\OutputSpec;
use Octavox\Core\Tag\TagField;
use Octavox\Core\Tag\Tags;

/** The tags of a result: those of its source, as they are asked to be changed, then cleaned where that is asked. */
final class TagChanges
{
    public static function apply(OutputSpec $spec, Tags $tags): Tags
    {
        foreach ($spec->tags ?? [] as $name => $value) {
            $values = $value === null ? [] : (is_array($value) ? $value : [$value]);
            $field = TagField::tryFrom($name);
            $tags = $field === null ? $tags->withFree($name, ...$values) : $tags->with($field, ...$values);
        }
        if ($spec->broadcast !== null) {
            $tags = $tags->withBroadcast($spec->broadcast->over($tags->broadcast));
        }
        $signs = $spec->tagSigns ?? Signs::Keep;

        return $signs === Signs::Keep ? $tags : $tags->mapped($signs->applied(...));
    }
}
