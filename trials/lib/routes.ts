import { z } from 'zod';
import type { Caller } from '../../server/src/testkit/harness.ts';

/** A JSON schema, as far as the trials look into it. */
export type Schema = Readonly<Record<string, unknown>>;

const schema: z.ZodType<Schema> = z.record(z.string(), z.unknown());
const parameter = z.object({ name: z.string(), in: z.string(), schema });
const operation = z.object({
  parameters: z.array(parameter).optional(),
  requestBody: z.object({ content: z.record(z.string(), z.object({ schema })) }).optional(),
});
const description = z.object({ paths: z.record(z.string(), z.record(z.string(), operation)) });

export interface Route {
  /** Method and path, as the description has them. */
  readonly name: string;
  readonly method: 'GET' | 'POST' | 'PUT' | 'DELETE';
  readonly path: string;
  readonly parameters: readonly z.infer<typeof parameter>[];
  readonly body: Schema | undefined;
}

/** The routes of a server, from its own description. */
export async function routesOf(caller: Caller): Promise<Route[]> {
  const { paths } = description.parse((await caller('GET', '/api/docs/json')).json());
  return Object.entries(paths).flatMap(([path, operations]) =>
    Object.entries(operations).map(([verb, { parameters = [], requestBody }]): Route => {
      const method = z.enum(['GET', 'POST', 'PUT', 'DELETE']).parse(verb.toUpperCase());
      return {
        name: `${method} ${path}`,
        method,
        path,
        parameters,
        body: Object.values(requestBody?.content ?? {})[0]?.schema,
      };
    }),
  );
}
