import { z } from 'zod';
import type { Endpoint } from './endpoints';
import { problemSchema } from './api';
import { ENDPOINTS } from './endpoints';

/** The API description (OpenAPI 3.1), made from the same schemas that check every request. */
export function openApi(): object {
  const paths: Record<string, Record<string, object>> = {};
  for (const endpoint of ENDPOINTS) {
    paths[endpoint.path] = { ...paths[endpoint.path], [endpoint.method]: operation(endpoint) };
  }
  return {
    openapi: '3.1.0',
    info: { title: 'Jam Pan', version: '1', description: 'Orders, plans and cuts of one vinyl shop.' },
    paths,
  };
}

const json = (schema: z.ZodType): object => ({
  'application/json': { schema: z.toJSONSchema(schema, { io: 'input' }) },
});

function operation({ path, says, takes, upload, gives }: Endpoint): object {
  const parameters = [...path.matchAll(/\{(\w+)\}/g)].map(([, name]) => ({
    name,
    in: 'path',
    required: true,
    schema: { type: name === 'film' ? 'string' : 'integer' },
  }));
  const file = {
    'multipart/form-data': {
      schema: {
        type: 'object',
        properties: { file: { type: 'string', format: 'binary' } },
        required: ['file'],
      },
    },
  };
  return {
    summary: says,
    ...(parameters.length > 0 ? { parameters } : {}),
    ...(takes ? { requestBody: { required: true, content: json(takes) } } : {}),
    ...(upload ? { requestBody: { required: true, content: file } } : {}),
    responses: {
      200: { description: says, content: typeof gives === 'string' ? { [gives]: {} } : json(gives) },
      default: { description: 'What happened and what to do', content: json(problemSchema) },
    },
  };
}
