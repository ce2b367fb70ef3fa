<?php

declare(strict_types=1);

// Writes core/schema/output-spec.json anew, from the table of fields: php bin/schema.php
require __DIR__.'/../core/bin/autoload.php';

file_put_contents(__DIR__.'/../core/schema/output-spec.json', Octavox\Core\Order\SpecTable::schemaText());
