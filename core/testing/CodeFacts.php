<?php

declare(strict_types=1);

namespace Octavox\Core\Testing;

use PhpParser\Node;
use PhpParser\NodeFinder;
use PhpParser\NodeTraverser;
use PhpParser\NodeVisitor\NameResolver;
use PhpParser\ParserFactory;

/** What one source file says and does, from its parsed code. */
final readonly class CodeFacts
{
    /** @param  array<Node>  $nodes  names resolved */
    private function __construct(public string $path, public string $code, private array $nodes) {}

    public static function of(string $path, string $code): self
    {
        $nodes = (new ParserFactory)->createForNewestSupportedVersion()->parse($code) ?? [];

        return new self($path, $code, (new NodeTraverser(new NameResolver))->traverse($nodes));
    }

    /** @return list<self> of every PHP file below a folder, paths relative to it and after what they are to begin with */
    public static function below(string $folder, string $as = ''): array
    {
        $facts = [];
        foreach (new \RecursiveIteratorIterator(new \RecursiveDirectoryIterator($folder, \FilesystemIterator::SKIP_DOTS)) as $file) {
            if (str_ends_with((string) $file, '.php')) {
                $facts[] = self::of($as.substr((string) $file, strlen($folder) + 1), (string) file_get_contents((string) $file));
            }
        }
        usort($facts, fn (self $one, self $other): int => $one->path <=> $other->path);

        return $facts;
    }

    /** The folder right below the root; empty for a file in the root itself. */
    public function room(): string
    {
        return str_contains($this->path, '/') ? strstr($this->path, '/', true) : '';
    }

    /** @return list<string> every class, interface or enum that is named, in full */
    public function names(): array
    {
        $names = array_map(fn (Node\Name $name): string => $name->toString(), $this->find(Node\Name\FullyQualified::class));

        return array_values(array_unique($names));
    }

    /** @return list<string> static calls as `Class::method` */
    public function staticCalls(): array
    {
        $calls = array_filter(
            $this->find(Node\Expr\StaticCall::class), fn (Node\Expr\StaticCall $call): bool => $call->class instanceof Node\Name
                && $call->name instanceof Node\Identifier,
        );

        return array_values(array_unique(
            array_map(fn (Node\Expr\StaticCall $call): string => $call->class->toString().'::'.$call->name->toString(), $calls)));
    }

    /** @return list<string> classes that are thrown where they are named: `throw new X`, `throw X::y()` */
    public function thrown(): array
    {
        $names = [];
        foreach ($this->find(Node\Expr\Throw_::class) as $throw) {
            $names[] = self::thrownClass($throw);
        }

        return array_values(array_unique(array_filter($names)));
    }

    /** @return list<string> classes that are neither closed nor meant to be extended */
    public function openClasses(): array
    {
        $open = array_filter($this->find(Node\Stmt\Class_::class),
            fn (Node\Stmt\Class_ $class): bool => $class->name !== null && ! $class->isFinal() && ! $class->isAbstract());

        return array_values(array_map(fn (Node\Stmt\Class_ $class): string => (string) $class->name, $open));
    }

    /** @return list<string> functions of more parameters than that; lists of the fields of a value do not count */
    public function manyParameters(int $most): array
    {
        $many = array_filter($this->find(Node\Stmt\ClassMethod::class),
            fn (Node\Stmt\ClassMethod $method): bool => count($method->params) > $most && ! self::isFieldList($method));

        return array_values(array_map(fn (Node\Stmt\ClassMethod $method): string => (string) $method->name, $many));
    }

    /** @return list<string> methods whose body has more lines than that */
    public function longMethods(int $most): array
    {
        $long = array_filter($this->find(Node\Stmt\ClassMethod::class),
            fn (Node\Stmt\ClassMethod $method): bool => $method->getEndLine() - $method->getStartLine() - 2 > $most);

        return array_values(array_map(fn (Node\Stmt\ClassMethod $method): string => (string) $method->name, $long));
    }

    /** @return list<string> classes and properties of `$this` that are named in what is given to a static call */
    public function within(string $class, string $method): array
    {
        $calls = array_filter($this->find(Node\Expr\StaticCall::class),
            fn (Node\Expr\StaticCall $call): bool => $call->class instanceof Node\Name
            && $call->name instanceof Node\Identifier && $call->class->toString() === $class && $call->name->toString() === $method);
        $named = [];
        foreach ((new NodeFinder)->find(array_values($calls), fn (Node $node): bool => true) as $node) {
            if ($node instanceof Node\Name\FullyQualified) {
                $named[] = $node->toString();
            } elseif ($node instanceof Node\Expr\PropertyFetch && $node->name instanceof Node\Identifier) {
                $named[] = '$this->'.$node->name->toString();
            }
        }

        return array_values(array_unique($named));
    }

    /** @return list<int> numbers of the lines that are longer; prototypes and other texts of several lines do not count */
    public function longLines(int $most): array
    {
        $texts = [];
        foreach ([...$this->find(Node\Scalar\String_::class), ...$this->find(Node\Scalar\InterpolatedString::class)] as $text) {
            if ($text->getEndLine() > $text->getStartLine()) {
                $texts += array_fill($text->getStartLine(), $text->getEndLine() - $text->getStartLine() + 1, true);
            }
        }
        $long = array_filter(explode("\n", $this->code), fn (string $line): bool => mb_strwidth(rtrim($line)) > $most);

        return array_values(array_filter(array_map(fn (int $index): int => $index + 1, array_keys($long)),
            fn (int $line): bool => ! isset($texts[$line])));
    }

    private static function thrownClass(Node\Expr\Throw_ $throw): ?string
    {
        $expression = $throw->expr;
        $class = $expression instanceof Node\Expr\New_ || $expression instanceof Node\Expr\StaticCall ? $expression->class : null;

        return $class instanceof Node\Name ? $class->toString() : null;
    }

    private static function isFieldList(Node\Stmt\ClassMethod $method): bool
    {
        return (string) $method->name === '__construct'
            && array_filter($method->params, fn (Node\Param $param): bool => ! $param->isPromoted()) === [];
    }

    /**
     * @template T of Node
     *
     * @param  class-string<T>  $kind
     * @return list<T>
     */
    private function find(string $kind): array
    {
        return array_values((new NodeFinder)->findInstanceOf($this->nodes, $kind));
    }
}
