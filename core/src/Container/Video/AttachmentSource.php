<?php

declare(strict_types=1);

namespace Octavox\Core\Container\Video;

/** An opened source that can carry other files. */
interface AttachmentSource extends VideoSource
{
    /** @return list<Attachment> without the cover, which is among the tags */
    public function attachments(): array;
}
