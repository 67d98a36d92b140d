import type * as z from 'zod';
import { apiErrorsSchema } from '@isometra/contract';
import { jsonSchemaOf } from '@isometra/core/describe';
import { OPERATIONS, type Operation } from './operations.js';

type Json = Readonly<Record<string, unknown>>;

/** A schema as it stands within a document that names its dialect once. */
function schemaOf(schema: z.ZodType): Json {
  const { $schema: _dialect, ...own } = jsonSchemaOf(schema);
  return own;
}

const parametersOf = ({ path, query }: Operation): Json[] => [
  ...[...path.matchAll(/\{(\w+)\}/g)].map(([, name]) => ({ name, in: 'path', required: true, schema: { type: 'string' } })),
  ...Object.entries(query?.shape ?? {}).map(([name, schema]) => ({
    name,
    in: 'query',
    required: !(schema as z.ZodType).safeParse(undefined).success,
    schema: schemaOf(schema as z.ZodType),
  })),
];

const fault = (description: string): Json => ({
  description,
  content: { 'application/json': { schema: { $ref: '#/components/schemas/Errors' } } },
});

function bodyOf({ body, bodyType, example }: Operation): Json | undefined {
  if (bodyType) return { required: true, content: { [bodyType]: { schema: { type: 'string', format: 'binary' } } } };
  if (!body) return undefined;
  return { required: true, content: { 'application/json': { schema: schemaOf(body), ...(example !== undefined && { example }) } } };
}

function answerOf({ answer, type }: Operation): Json {
  const description = 'As asked';
  if (type) return { description, content: { [type]: { schema: { type: 'string', format: 'binary' } } } };
  return answer ? { description, content: { 'application/json': { schema: schemaOf(answer) } } } : { description };
}

const operationId = ({ method, path }: Operation): string =>
  `${method}${path.replace(/[^\w]+(\w)/g, (_all, sign: string) => sign.toUpperCase()).replace(/\W/g, '')}`;

/** The interface of the shop as OpenAPI 3.1, from the schemas that its routes check with. @param version of the program. */
export function openApi(version: string): Json {
  const paths: Record<string, Record<string, Json>> = {};
  for (const operation of OPERATIONS) {
    const requestBody = bodyOf(operation);
    paths[operation.path] = {
      ...paths[operation.path],
      [operation.method]: {
        ...{ operationId: operationId(operation), summary: operation.summary, tags: [operation.path.split(/[/.]/)[1]] },
        parameters: parametersOf(operation),
        ...(requestBody && { requestBody }),
        responses: { '2XX': answerOf(operation), '4XX': fault('What is wrong, field by field, and what would do') },
      },
    };
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Isometra',
      version,
      description:
        'Machines, rounds, readings, moves, faces, parts, kit and limits of one shop. Every write carries an id that the sender made and is safe to send twice. An error has a code that does not change and, for each fault, the field and what would do.',
    },
    servers: [{ url: '/api' }],
    paths,
    components: { schemas: { Errors: schemaOf(apiErrorsSchema) } },
  };
}
