import { z } from 'zod';
import type { Endpoint } from './endpoints/endpoint';
import { problemSchema } from './api';
import { ENDPOINTS } from './endpoints';

/** The API description (OpenAPI 3.1), made from the same schemas that check every request. */
export function openApi(): object {
  const paths: Record<string, Record<string, object>> = {};
  for (const [route, endpoint] of Object.entries<Endpoint>(ENDPOINTS)) {
    const [method, path] = route.split(' ');
    paths[path] = { ...paths[path], [method.toLowerCase()]: operation(endpoint) };
  }
  return {
    openapi: '3.1.0',
    info: { title: 'Jam Pan', version: '1', description: 'Orders, plans and cuts of one vinyl shop.' },
    paths,
  };
}

// what artwork reads as is larger than a description: it is any JSON here
const schemaOf = (schema: z.ZodType): object =>
  z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' });

const json = (schema: z.ZodType): object => ({ 'application/json': { schema: schemaOf(schema) } });

const named = (place: 'path' | 'query', object: z.ZodObject | undefined): object[] =>
  Object.entries(object?.shape ?? {}).map(([name, schema]) => ({
    name,
    in: place,
    required: !schema.safeParse(undefined).success,
    schema: schemaOf(schema as z.ZodType),
  }));

const FILE = {
  'multipart/form-data': {
    schema: {
      type: 'object',
      properties: { file: { type: 'string', format: 'binary' } },
      required: ['file'],
    },
  },
};

function operation({ says, params, query, takes, upload, gives }: Endpoint): object {
  const parameters = [...named('path', params), ...named('query', query)];
  const content = takes ? json(takes) : upload ? FILE : undefined;
  return {
    summary: says,
    ...(parameters.length > 0 ? { parameters } : {}),
    ...(content ? { requestBody: { required: true, content } } : {}),
    responses: {
      200: { description: says, content: typeof gives === 'string' ? { [gives]: {} } : json(gives) },
      default: { description: 'What happened and what to do', content: json(problemSchema) },
    },
  };
}
