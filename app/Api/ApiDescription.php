<?php

declare(strict_types=1);

namespace App\Api;

use App\Settings\Values\AccessScope;

/** The interface for scripts, described: one table of what can be asked, from which the OpenAPI document and the page are made. */
final class ApiDescription
{
    public const VERSION = '1.0.0';

    private const PARAMETERS = [
        'limit' => ['integer', 'At most so many, 1 to 200; 50 where nothing is said'],
        'before' => ['integer', 'Goes on before this number'],
        'state' => ['string', 'Only those in this state'], 'order' => ['integer', 'Only what belongs to this order'],
        'folder' => ['string', 'Folder on the shelf'], 'sources' => ['string', 'Numbers of sources, with commas between, at most 200'],
        'since' => ['integer', 'Second of the epoch from which on things count; Last-Event-ID says the same'],
        'seconds' => ['integer', 'How long to listen, 1 to 120; 60 where nothing is said'],
    ];

    /** @return list<Operation> */
    public function operations(): array
    {
        [$read, $bring, $order, $keep] = AccessScope::cases();
        $paged = ['limit', 'before'];
        $page = fn (string $of): array => [200 => 'PageOf'.$of];

        return [
            new Operation('get', '/', null, 'What this is, and where to go on', [], null, [200 => 'Index']),
            new Operation('get', '/openapi.json', null, 'This description', [], null, [200 => 'Any']),
            new Operation('get', '/shelves', $read, 'Shelves that are open', [], null, $page('Shelf')),
            new Operation('get', '/shelves/{shelf}', $read, 'What lies in a folder of a shelf', ['folder'], null, $page('ShelfEntry')),
            new Operation('get', '/sources', $read, 'Sources, newest first', [...$paged, 'state'], null, $page('Source')),
            new Operation('post', '/sources', $bring, 'Take files and whole folders of a shelf in; they stay where they are', [], 'TakeIn',
                [201 => 'PageOfSource']),
            new Operation('get', '/sources/{source}', $read, 'One source', [], null, [200 => 'Source']),
            new Operation('delete', '/sources/{source}', $bring, 'Take a source off the list; its file is not deleted', [],
                null, [204 => '']),
            new Operation('get', '/sources/{source}/reading', $read, 'All that was read of it', [], null, [200 => 'Reading']),
            new Operation('get', '/sources/{source}/analyses', $read, 'What was measured on its sound tracks', [], null, $page('Analysis')),
            new Operation('get', '/sources/{source}/file', $read, 'Its bytes', [], null, [200 => 'bytes']),
            new Operation('options', '/uploads', null, 'What of tus 1.0.0 is spoken', [], null, [204 => '']),
            new Operation('post', '/uploads', $bring,

                'Begin an upload (tus): Location says where; Upload-Metadata has filename, path, and a drop for what comes together', [],
                null, [201 => '']),
            new Operation('get', '/uploads/{upload}', $bring, 'How far an upload is', [], null, [200 => 'Upload']),
            new Operation('head', '/uploads/{upload}', $bring, 'How far an upload is (tus)', [], null, [200 => '']),
            new Operation('patch', '/uploads/{upload}', $bring, 'Send a part (tus): the last one answers with Octavox-Source', [], 'bytes',
                [204 => '']),
            new Operation('delete', '/uploads/{upload}', $bring, 'Give an upload up (tus)', [], null, [204 => '']),
            new Operation('get', '/destinations', $read, 'Destinations', [], null, $page('Destination')),
            new Operation('post', '/destinations', $keep, 'Keep a new destination', [], 'Any', [201 => 'Destination']),
            new Operation('get', '/destinations/{name}', $read, 'One destination', [], null, [200 => 'Destination']),
            new Operation('put', '/destinations/{name}', $keep, 'Change one that was made here', [], 'Any', [200 => 'Destination']),
            new Operation('delete', '/destinations/{name}', $keep, 'Delete one that was made here', [], null, [204 => '']),
            new Operation('get', '/destinations/{name}/fits', $read, 'What stops sources there, and the least that helps',
                ['sources'], null,
                $page('Fit')),
            new Operation('get', '/recipes', $read, 'Recipes', [], null, $page('Recipe')),
            new Operation('post', '/recipes', $keep, 'Keep a new recipe', [], 'Any', [201 => 'Recipe']),
            new Operation('get', '/recipes/{name}', $read, 'One recipe', [], null, [200 => 'Recipe']),
            new Operation('put', '/recipes/{name}', $keep, 'Change one that was made here', [], 'Any', [200 => 'Recipe']),
            new Operation('delete', '/recipes/{name}', $keep, 'Delete one that was made here', [], null, [204 => '']),
            new Operation('post', '/plans', $order, 'What would be made; nothing is', [], 'OrderRequest', [200 => 'Plans']),
            new Operation('get', '/orders', $read, 'Orders, newest first', $paged, null, $page('Order')),
            new Operation('post', '/orders', $order, 'Order it', [], 'OrderRequest', [201 => 'Order']),
            new Operation('get', '/orders/{order}', $read, 'One order, and how far it is', [], null, [200 => 'Order']),
            new Operation('patch', '/orders/{order}', $order, 'Pause it or have it go on, before all others or after them', [], 'Turn',
                [200 => 'Order']),
            new Operation('post', '/orders/{order}/cancel', $order, 'Cancel what is not done', [], null, [200 => 'Order']),
            new Operation('post', '/orders/{order}/retry', $order, 'Begin again what failed or was cancelled', [], null, [200 => 'Order']),
            new Operation('get', '/orders/{order}/results', $read, 'Results of an order', $paged, null, $page('Result')),
            new Operation('get', '/results', $read, 'Results, newest first', [...$paged, 'state', 'order'], null, $page('Result')),
            new Operation('get', '/results/{result}', $read, 'One result, with its receipt', [], null, [200 => 'Result']),
            new Operation('get', '/results/{result}/file', $read, 'Its bytes', [], null, [200 => 'bytes']),
            new Operation('patch', '/results/{result}', $order,
                'Pause it or have it go on, before the others of its order or after them', [],
                'Turn', [200 => 'Result']),
            new Operation('post', '/results/{result}/cancel', $order, 'Cancel it', [], null, [200 => 'Result']),
            new Operation('post', '/results/{result}/retry', $order, 'Begin it again', [], null, [200 => 'Result']),
            new Operation('delete', '/results/{result}', $order, 'Put its file into the bin', [], null, [200 => 'Result']),
            new Operation('post', '/results/{result}/restore', $order, 'Put its file back', [], null, [200 => 'Result']),
            new Operation('get', '/events', $read, 'What happens, as server-sent events: result, order, source',
                ['since', 'order', 'seconds'],
                null, [200 => 'events']),
        ];
    }

    /** @return array<string, mixed> */
    public function index(): array
    {
        return ['name' => 'Octavox', 'version' => self::VERSION, 'description' => route('api.document'), 'examples' => route('interface')];
    }

    /** @return array<string, mixed> */
    public function document(): array
    {
        $paths = [];
        foreach ($this->operations() as $one) {
            $paths[$one->path][$one->method] = $this->operation($one);
        }

        return [
            'openapi' => '3.1.0',
            'info' => ['title' => 'Octavox', 'version' => self::VERSION, 'summary' => 'Sound out of video, discs and recordings, by script',
                'license' => ['name' => 'MIT', 'identifier' => 'MIT']],
            'servers' => [['url' => url('/api/v1')]],
            'security' => [['token' => []]],
            'paths' => $paths,
            'components' => [
                'securitySchemes' => ['token' => ['type' => 'http', 'scheme' => 'bearer']],
                'schemas' => Schemas::all(),
            ],
        ];
    }

    /** @return array<string, mixed> */
    private function operation(Operation $one): array
    {
        $described = ['operationId' => $one->id(), 'summary' => $one->summary, 'tags' => [$one->tag()]]
            + ($one->scope === null ? ['security' => []] : ['description' => 'For tokens that allow to '.$one->scope->label().'.']);
        $parameters = array_map(fn (string $name): array => ['name' => $name, 'in' => 'path', 'required' => true,
            'schema' => ['type' => in_array($name, ['upload', 'name', 'shelf'], true) ? 'string' : 'integer']], $one->places());
        foreach ($one->parameters as $name) {
            [$type, $says] = self::PARAMETERS[$name];
            $parameters[] = ['name' => $name, 'in' => 'query', 'description' => $says, 'schema' => ['type' => $type]];
        }
        if ($one->scope !== null && ! in_array($one->method, ['get', 'head'], true) && $one->tag() !== 'uploads') {
            $parameters[] = ['name' => 'Idempotency-Key', 'in' => 'header', 'schema' => ['type' => 'string', 'maxLength' => 255],
                'description' => 'Sent again with the same key, nothing is done twice and the answer is the same'];
        }
        if ($parameters !== []) {
            $described['parameters'] = $parameters;
        }
        if ($one->body !== null) {
            $described['requestBody'] = ['required' => true, 'content' => $this->content($one->body)];
        }
        foreach ($one->answers as $status => $schema) {
            $described['responses'][(string) $status] = ['description' => $one->summary]
                + ($schema === '' ? [] : ['content' => $this->content($schema)]);
        }
        $described['responses']['default'] = ['description' => 'What went wrong (RFC 9457)',
            'content' => ['application/problem+json' => ['schema' => ['$ref' => '#/components/schemas/Problem']]]];

        return $described;
    }

    /** @return array<string, array<string, mixed>> */
    private function content(string $schema): array
    {
        return match ($schema) {
            'bytes' => ['application/octet-stream' => ['schema' => ['type' => 'string', 'contentEncoding' => 'binary']]],
            'events' => ['text/event-stream' => ['schema' => ['type' => 'string']]],
            default => ['application/json' => ['schema' => ['$ref' => '#/components/schemas/'.$schema]]],
        };
    }

    /** @return array<string, list<Operation>> by what they are about */
    public function groups(): array
    {
        $groups = [];
        foreach ($this->operations() as $one) {
            $groups[$one->tag()][] = $one;
        }

        return $groups;
    }
}
