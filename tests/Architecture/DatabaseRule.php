<?php

declare(strict_types=1);

namespace Tests\Architecture;

use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\Relation;
use Illuminate\Database\Query\Builder as QueryBuilder;
use Illuminate\Support\Facades\DB;
use PhpParser\Node;
use PhpParser\Node\Expr;
use PHPStan\Analyser\Scope;
use PHPStan\Rules\IdentifierRuleError;
use PHPStan\Rules\Rule;
use PHPStan\Rules\RuleErrorBuilder;
use PHPStan\Type\ObjectType;
use PHPStan\Type\Type;
use PHPStan\Type\TypeCombinator;

/**
 * Who asks the database and who writes to it: controllers and values do neither, queries do not write.
 *
 * @implements Rule<Expr\CallLike>
 */
final class DatabaseRule implements Rule
{
    private const DATABASE = [Builder::class, Relation::class, QueryBuilder::class];

    private const WRITES = ['create', 'firstorcreate', 'updateorcreate', 'forcecreate', 'insert', 'insertgetid', 'insertorignore',
        'upsert', 'update',
        'updatequietly', 'updateorinsert', 'save', 'saveorfail', 'savequietly', 'push', 'delete', 'forcedelete', 'deleteorfail', 'destroy',
        'truncate', 'increment', 'decrement', 'touch', 'attach', 'detach', 'sync', 'associate', 'dissociate', 'replicate'];

    public function getNodeType(): string
    {
        return Expr\CallLike::class;
    }

    /** @return list<IdentifierRuleError> */
    public function processNode(Node $node, Scope $scope): array
    {
        $class = $scope->getClassReflection()?->getName() ?? '';
        $isController = preg_match('/^App\\\\.*Controller$/', $class) === 1;
        $isValue = preg_match('/^App\\\\[A-Za-z]+\\\\Values\\\\/', $class) === 1;
        $isQuery = preg_match('/^App\\\\[A-Za-z]+\\\\(Queries|Planning)\\\\/', $class) === 1;
        if (! $isController && ! $isValue && ! $isQuery || ! $node instanceof Expr\MethodCall && ! $node instanceof Expr\NullsafeMethodCall
            && ! $node instanceof Expr\StaticCall
            || ! $node->name instanceof Node\Identifier) {
            return [];
        }
        $name = strtolower($node->name->toString());
        [$isDatabase, $isModel] = $this->asks($node, $scope);
        $isWrite = in_array($name, self::WRITES, true) && ($isDatabase || $isModel);
        $why = match (true) {
            $isWrite && $isQuery => 'a query writes',
            ($isDatabase || $isWrite) && ($isController || $isValue) => 'the database is asked by queries and changed by actions',
            default => null,
        };

        return $why === null ? [] : [RuleErrorBuilder::message("{$node->name->toString()}(): $why.")->identifier('octavox.database')
            ->build()];
    }

    /** @return array{bool, bool} whether the database itself is asked, and whether it is a model that is called */
    private function asks(Expr\MethodCall|Expr\NullsafeMethodCall|Expr\StaticCall $node, Scope $scope): array
    {
        if ($node instanceof Expr\StaticCall) {
            $called = $node->class instanceof Node\Name ? $scope->resolveName($node->class) : '';
            $returned = $scope->getType($node);

            return [$called === DB::class || $this->isAny(self::DATABASE, $returned), (new ObjectType(Model::class))
                ->isSuperTypeOf(new ObjectType($called))->yes()];
        }
        $type = $scope->getType($node->var);

        return [$this->isAny(self::DATABASE, $type), $this->isAny([Model::class], $type)];
    }

    /** @param  list<class-string>  $classes */
    private function isAny(array $classes, Type $type): bool
    {
        $type = TypeCombinator::removeNull($type);
        foreach ($type->isObject()->yes() ? $classes : [] as $class) {
            if ((new ObjectType($class))->isSuperTypeOf($type)->yes()) {
                return true;
            }
        }

        return false;
    }
}
