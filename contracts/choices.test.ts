import { describe, expect, test } from '@jest/globals';
import { DEFAULT_CHOICES } from '../core/plan/choices';
import { eventSchema } from './api';
import { addressOf } from './address';
import type { Endpoint } from './endpoints/endpoint';
import { ENDPOINTS } from './endpoints';
import { choicesSchema, withDefaults } from './choices';
import { openApi } from './openapi';

describe('choices', () => {
  test('the defaults are valid, and come back as they went in', () => {
    expect(choicesSchema.parse(DEFAULT_CHOICES)).toEqual(DEFAULT_CHOICES);
  });

  const { artwork, layout, films } = DEFAULT_CHOICES;
  test.each([
    ['a width of nought', { artwork: { ...artwork, width: 0 } }],
    ['a width that is no number', { artwork: { ...artwork, width: NaN } }],
    ['half a copy', { layout: { ...layout, copies: 1.5 } }],
    ['too many copies', { layout: { ...layout, copies: 1001 } }],
    ['a spacing below nought', { layout: { ...layout, spacing: -1 } }],
    ['a colour by name', { films: { ...films, off: ['red'] } }],
    ['a colour in capitals', { films: { ...films, film: { '#FF0000': 'damson' } } }],
    ['a force that breaks blades', { cut: { recipes: { curlew: { damson: { force: 5000 } } } } }],
    ['something nobody knows', { ...DEFAULT_CHOICES, glitter: true }],
  ])('%s is refused', (_, change) => {
    expect(choicesSchema.safeParse({ ...DEFAULT_CHOICES, ...change }).success).toBe(false);
  });
});

test('events are told apart by kind, and a strange one is none', () => {
  expect(eventSchema.parse({ kind: 'order', orderId: 3 })).toEqual({ kind: 'order', orderId: 3 });
  expect(eventSchema.safeParse({ kind: 'fireworks' }).success).toBe(false);
});

test('the API description names every endpoint once, with its parameters', () => {
  const { paths } = openApi() as {
    paths: Record<string, Record<string, { parameters?: { name: string }[] }>>;
  };
  const described = Object.entries(paths).flatMap(([path, methods]) =>
    Object.keys(methods).map((m) => `${m} ${path}`),
  );
  expect(described.sort()).toEqual(
    Object.keys(ENDPOINTS)
      .map((route) => route.replace(/^\w+/, (method) => method.toLowerCase()))
      .sort(),
  );
  expect(paths['/api/orders/{id}/strips/{strip}.plt'].get.parameters?.map((p) => p.name)).toEqual([
    'id',
    'strip',
  ]);
});

test('what stands in braces in an address is what the endpoint parses, and an address is made from it', () => {
  for (const [route, { params }] of Object.entries<Endpoint>(ENDPOINTS)) {
    const named = [...route.matchAll(/\{(\w+)\}/g)].map(([, name]) => name);
    expect(Object.keys(params?.shape ?? {})).toEqual(named);
  }
  const strip = { id: 4, strip: 'a/b c' };
  expect(addressOf('GET /api/orders/{id}/strips/{strip}.svg', { params: strip })).toBe(
    '/api/orders/4/strips/a%2Fb%20c.svg',
  );
  expect(addressOf('GET /api/cuts', { query: { order: 7 } })).toBe('/api/cuts?order=7');
  expect(addressOf('GET /api/cuts', { query: { order: undefined } })).toBe('/api/cuts');
});

test('choices from when an order had one cutter are carried over, its recipes to that cutter', () => {
  const { cutter: _now, cut: _cut, ...rest } = DEFAULT_CHOICES;
  const older = (cutter: string | null, recipes: object) =>
    withDefaults({ ...rest, cutter, cut: { recipes } });
  expect(choicesSchema.parse(older('curlew', { damson: { force: 90 } }))).toMatchObject({
    cutter: { order: 'curlew', film: {} },
    cut: { recipes: { curlew: { damson: { force: 90 } } } },
  });
  expect(choicesSchema.parse(older(null, { damson: { force: 90 } })).cut.recipes).toEqual({
    '*': { damson: { force: 90 } },
  });
  expect(choicesSchema.parse(older(null, {}))).toMatchObject({
    cutter: { order: null },
    cut: { recipes: {} },
  });
  // what is new already stays as it is
  expect(withDefaults(DEFAULT_CHOICES)).toEqual(DEFAULT_CHOICES);
});

test('a weed border from when it was there or not is one around each copy, or none', () => {
  const { layout } = DEFAULT_CHOICES;
  const carried = (border: boolean) =>
    choicesSchema.parse(withDefaults({ layout: { ...layout, border } })).layout.border;
  expect([carried(true), carried(false)]).toEqual(['copy', 'none']);
});
