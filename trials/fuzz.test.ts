import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { wire } from '@bastion/core';
import { type Caller, type Harness, smallDesign, startHarness } from '../server/src/testkit/harness.ts';
import { times } from './lib/form.ts';
import { type Route, routesOf, type Schema } from './lib/routes.ts';

/** Whatever is sent, within the description of the server or beside it, is answered with a result or a refusal: never with a failure inside. */
const SEED = 20_261_126;
const RUNS = times({ short: 40, long: 5000 });

let harness: Harness;
let administrator: Caller;
let routes: Route[] = [];
beforeAll(async () => {
  harness = await startHarness();
  administrator = await harness.as('administrator@north.test');
  const { id } = (await administrator('POST', '/api/jobs/import', smallDesign())).json<{ id: number }>();
  await administrator('POST', `/api/jobs/${id}/runs`);
  // Signing out ends the trial for everything after it.
  routes = (await routesOf(administrator)).filter(({ name }) => name !== 'DELETE /api/session');
});
afterAll(() => harness.close());

const list = (value: unknown): unknown[] => (Array.isArray(value) ? value : []);
const isSchema = (value: unknown): value is Schema => typeof value === 'object' && value !== null;

/** Values that nobody expects. */
const odd: fc.Arbitrary<unknown> = fc.oneof(
  fc.constantFrom(
    null,
    '',
    ' ',
    '\u0000',
    '../../etc/passwd',
    '__proto__',
    'constructor',
    '💡'.repeat(300),
    'x'.repeat(70_000),
    -1,
    0,
    1e308,
    2 ** 53,
    0.1,
    true,
    [],
    {},
    [[[[]]]],
    { id: 'a', __proto: 1 },
  ),
  fc.jsonValue({ maxDepth: 3 }),
);

/** Values after a schema, now and then something else in their place. */
function after(schema: unknown, depth = 0): fc.Arbitrary<unknown> {
  if (!isSchema(schema) || depth > 6) return odd;
  const inside = fitting(schema, depth);
  return fc.oneof({ weight: 14, arbitrary: inside }, { weight: 1, arbitrary: odd });
}

function fitting(schema: Schema, depth: number): fc.Arbitrary<unknown> {
  const choices = [...list(schema.anyOf), ...list(schema.oneOf)];
  if (choices.length > 0) return fc.oneof(...choices.map((one) => after(one, depth + 1)));
  if (schema.const !== undefined) return fc.constant(schema.const);
  const values = list(schema.enum);
  if (values.length > 0) return fc.constantFrom(...values);
  switch (schema.type) {
    case 'object': {
      const fields = isSchema(schema.properties) ? schema.properties : {};
      const record = Object.fromEntries(
        Object.entries(fields).map(([name, field]) => [name, after(field, depth + 1)]),
      );
      const required = list(schema.required).map(String);
      return fc.record(record, { requiredKeys: required.filter((name) => name in record) });
    }
    case 'array':
      return fc.array(after(schema.items, depth + 1), { maxLength: 3 });
    case 'integer':
      return fc.oneof(fc.integer({ min: 1, max: 3 }), fc.integer());
    case 'number':
      return fc.oneof(fc.integer({ min: 0, max: 100 }), fc.double({ noNaN: true }));
    case 'boolean':
      return fc.boolean();
    case 'string':
      return fc.oneof(
        fc.constantFrom(
          'site',
          'circuits',
          'c1',
          'items',
          'i1',
          'stacks',
          's',
          'delivery',
          'name',
          'a-long-enough-id',
        ),
        fc.string({ maxLength: 20, unit: 'grapheme' }),
      );
    default:
      return odd;
  }
}

/** A request for a route: its path and query filled in, its body made. */
function requestFor(route: Route): fc.Arbitrary<{ url: string; body: unknown }> {
  const fields = Object.fromEntries(
    route.parameters.map((one) => [
      one.name,
      // The people who ask stay who they are.
      one.name === 'personId'
        ? fc.constantFrom('5', '999', '-1', 'x')
        : one.in === 'path'
          ? fc.oneof({ weight: 3, arbitrary: fc.constant('1') }, { weight: 1, arbitrary: after(one.schema) })
          : fc.option(after(one.schema), { nil: undefined }),
    ]),
  );
  const body = route.body === undefined ? fc.constant(undefined) : after(route.body);
  return fc.record({ given: fc.record(fields), body }).map(({ given, body: made }) => {
    const text = (value: unknown): string =>
      encodeURIComponent(typeof value === 'string' ? value : JSON.stringify(value));
    const path = route.path.replace(/\{(\w+)\}/g, (_, name: string) => text(given[name]).slice(0, 900));
    const query = route.parameters
      .filter((one) => one.in === 'query' && given[one.name] !== undefined)
      .map((one) => `${one.name}=${text(given[one.name]).slice(0, 900)}`);
    return { url: query.length === 0 ? path : `${path}?${query.join('&')}`, body: made };
  });
}

/** A refusal that is one of ours, in the one shape of all of them. */
function expectRefusal(status: number, body: string): void {
  expect(status, body).toBeLessThan(500);
  if (status >= 400) expect(wire.refusal.safeParse(JSON.parse(body)).success, body).toBe(true);
}

describe('requests made from the description of the server', () => {
  it('are answered on every route, none with a failure', async () => {
    expect(routes.length).toBeGreaterThan(40);
    for (const route of routes)
      await fc.assert(
        fc.asyncProperty(requestFor(route), async ({ url, body }) => {
          const answer = await administrator(route.method, url, body);
          if (answer.headers['content-type']?.toString().includes('pdf') !== true)
            expectRefusal(answer.statusCode, answer.body);
        }),
        { seed: SEED, numRuns: RUNS },
      );
    expect((await administrator('GET', '/api/jobs/1')).statusCode).toBe(200);
    expect((await administrator('GET', '/api/health')).statusCode).toBe(200);
  }, 3_600_000);

  it('bodies that are no JSON, or of another kind, are refused', async () => {
    const kinds = [
      'application/json',
      'text/plain',
      'application/xml',
      'multipart/form-data; boundary=x',
      '',
    ];
    const { cookies } = await harness.app.inject({
      method: 'POST',
      url: '/api/session',
      payload: { email: 'designer@north.test', password: 'correct horse' },
      remoteAddress: '10.220.1.1',
    });
    const cookie = { [cookies[0]?.name ?? '']: cookies[0]?.value ?? '' };
    const changing = routes.filter(({ method, body }) => method !== 'GET' && body !== undefined);
    await fc.assert(
      fc.asyncProperty(
        fc.constantFrom(...changing),
        fc.constantFrom(...kinds),
        fc.oneof(fc.string(), fc.constantFrom('{', '[]', 'null', '{"a":1}}', '--x\r\n')),
        async (route, kind, text) => {
          const answer = await harness.app.inject({
            method: route.method,
            url: route.path.replace(/\{\w+\}/g, '1'),
            cookies: cookie,
            headers: kind === '' ? {} : { 'content-type': kind },
            payload: text,
          });
          expectRefusal(answer.statusCode, answer.body);
        },
      ),
      { seed: SEED, numRuns: RUNS * 10 },
    );
  }, 3_600_000);
});
