<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

use Octavox\Core\Json\Fields;
use Octavox\Core\Json\PathText;
use Octavox\Core\Order\IfExists;

/** The file that a plan makes. */
final readonly class Target
{
    /**
     * @param  string  $container  name of the sound or video format
     * @param  string  $name  with extension
     * @param  int  $predictedBytes  exact for PCM, near for the rest
     */
    public function __construct(public string $container, public string $folder, public string $name, public IfExists $ifExists,
        public int $predictedBytes) {}

    public function path(): string
    {
        return rtrim($this->folder, '/').'/'.$this->name;
    }

    public function into(string $folder): self
    {
        return new self($this->container, $folder, $this->name, $this->ifExists, $this->predictedBytes);
    }

    public function named(string $name): self
    {
        return new self($this->container, $this->folder, $name, $this->ifExists, $this->predictedBytes);
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'container' => $this->container, 'folder' => PathText::encode($this->folder),
            'name' => PathText::encode($this->name),
            'if_exists' => $this->ifExists->value, 'predicted_bytes' => $this->predictedBytes,
        ];
    }

    /** @throws \UnexpectedValueException where it is not what {@see self::toArray()} gave */
    public static function fromFields(Fields $fields): self
    {
        $ifExists = IfExists::tryFrom($fields->text('if_exists'))
            ?? throw new \UnexpectedValueException('A plan says something unknown of files that exist.');

        return new self($fields->text('container'), $fields->text('folder'), $fields->text('name'), $ifExists,
            $fields->number('predicted_bytes'));
    }
}
