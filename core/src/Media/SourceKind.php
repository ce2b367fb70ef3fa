<?php

declare(strict_types=1);

namespace Octavox\Core\Media;

enum SourceKind: string
{
    case File = 'file';
    case Title = 'title';
    case Folder = 'folder';
}
