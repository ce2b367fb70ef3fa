<?php

declare(strict_types=1);

namespace Tests\Architecture;

use PhpParser\Node;
use PhpParser\Node\Expr;
use PHPStan\Analyser\Scope;
use PHPStan\Rules\IdentifierRuleError;
use PHPStan\Rules\Rule;
use PHPStan\Rules\RuleErrorBuilder;

/**
 * What is said without calling a function: `die`, `exit`, `echo`, `eval`, superglobals, classes named in strings.
 *
 * @implements Rule<Node>
 */
final class LanguageRule implements Rule
{
    private const SUPERGLOBALS = ['_GET', '_POST', '_COOKIE', '_FILES', '_REQUEST', '_SESSION', '_SERVER', '_ENV', 'GLOBALS'];

    private const OURS = '/^(App|Octavox\\\\(Core|Cli))\\\\/';

    /** Those that answer whoever waits at their standard output. */
    private const PRINT = '/^(Octavox\\\\Cli|Octavox\\\\Core\\\\(Testing|Parallel)|App\\\\(Http|Results\\\\Pages|Sources\\\\Pages|Api))\\\\/';

    public function getNodeType(): string
    {
        return Node::class;
    }

    /** @return list<IdentifierRuleError> */
    public function processNode(Node $node, Scope $scope): array
    {
        $class = $scope->getClassReflection()?->getName() ?? '';
        $isOurs = preg_match(self::OURS, $class) === 1;
        $isPrinting = preg_match(self::PRINT, $class) === 1;
        $why = match (true) {
            $node instanceof Expr\Exit_ && $node->getAttribute('kind') === Expr\Exit_::KIND_DIE => 'die: nothing ends without a sentence',
            $node instanceof Expr\Exit_ && $isOurs && $class !== 'Octavox\Cli\Interruption' => 'exit: only scripts end',
            $node instanceof Expr\Eval_ => 'eval',
            ($node instanceof Node\Stmt\Echo_ || $node instanceof Expr\Print_) && $isOurs && ! $isPrinting => 'echo: nothing prints but commands and answers',
            $node instanceof Expr\ShellExec => 'backticks: processes begin in Processes and Parallel',
            $node instanceof Expr\Variable && is_string($node->name) && in_array($node->name, self::SUPERGLOBALS, true) && $isOurs => "\${$node->name}: what "
                .'was asked comes as an argument',
            $node instanceof Node\Scalar\String_ && $isOurs && ! str_contains($class, '\\Native\\')
                && preg_match('/^\\\\?(FFI(\\\\\w+)?|Octavox\\\\Core\\\\.*\\\\Native\\\\\w+)(::\w+)?$/', $node->value) === 1 => "'$node->value': a library named in a string",
            default => null,
        };

        return $why === null ? [] : [RuleErrorBuilder::message("Not here: $why.")->identifier('octavox.language')->build()];
    }
}
