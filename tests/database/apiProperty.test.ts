import { seedDemo } from '@practice/scenario/seed';
import fc from 'fast-check';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { OPENAPI } from '@/app/api/openapi';
import type { AnyOperation } from '@/app/api/operation';
import { OPERATIONS } from '@/app/api/operations';
import { requestSchema } from '@/app/api/requestSchemas';
import type { Schema } from '@/app/api/schemas';
import { call } from './callApi';
import { valuesOf } from './fromSchema';
import { emptyLedger, type TestLedger, TODAY } from './ledger';

/** Random requests that the description allows, or nearly: five thousand of them by `npm run soak`. */
const REQUESTS = process.env.SOAK ? 5000 : 800;

let ledger: TestLedger;
beforeAll(async () => {
  ledger = await emptyLedger();
  await seedDemo(ledger.database, TODAY);
  (globalThis as { nameLedgerDeps?: unknown }).nameLedgerDeps = ledger;
}, 60_000);
afterAll(() => ledger.close());

const SCHEMAS = OPENAPI.components.schemas as Readonly<Record<string, Schema>>;
const PLACES = ['1', '2', '3', '0', '999', '-1', 'x', 'kelpkiln.com', 'com', '*', "' or 1=1", '%E0%A4%A'];

function requestsOf(operation: AnyOperation) {
  const { method, path, query = {}, body, bodySchema, fills = {} } = operation;
  const schema = body ? requestSchema(body, Object.keys(fills)) : bodySchema;
  const places = [...path.matchAll(/\{\w+\}/g)].length;
  return fc.record({
    method: fc.constant(method),
    path: fc.constant(path),
    places: fc.array(fc.constantFrom(...PLACES), { minLength: places, maxLength: places }),
    query: fc.record(
      Object.fromEntries(Object.entries(query).map(([name, one]) => [name, valuesOf(one.schema, SCHEMAS)])),
      { requiredKeys: [] },
    ),
    body: schema
      ? fc.oneof(
          { weight: 6, arbitrary: valuesOf(schema, SCHEMAS) },
          { weight: 1, arbitrary: fc.jsonValue({ maxDepth: 3 }) },
        )
      : fc.constant(undefined),
    headers: fc.record(
      {
        'idempotency-key': fc.oneof(fc.uuid(), fc.constantFrom('again', '')),
        'if-match': fc.constantFrom('*', '"x"', 'nonsense'),
      },
      { requiredKeys: operation.spends ? ['idempotency-key'] : [] },
    ),
  });
}

const requests = fc.oneof(...OPERATIONS.map(requestsOf));

test(`${REQUESTS} random requests: each is answered as it is described, none by a fault of the program`, async () => {
  const told = new Map<number, number>();
  await fc.assert(
    fc.asyncProperty(requests, async ({ method, path, places, query, body, headers }) => {
      let place = 0;
      const address = path.replace(/\{\w+\}/g, () => encodeURIComponent(places[place++] as string));
      const search = new URLSearchParams(Object.entries(query).map(([name, value]) => [name, String(value)]));
      const { status, text } = await call(method, `${address}?${search}`, body, headers as Record<string, string>);
      told.set(status, (told.get(status) ?? 0) + 1);
      expect(status, `${method} ${address} ${JSON.stringify(body)}: ${text.slice(0, 300)}`).toBeLessThan(500);
    }),
    // Always the same ones but in the long run: what is found there is found by whoever looks for it.
    { numRuns: REQUESTS, endOnFailure: true, ...(process.env.SOAK ? {} : { seed: 24_112_026 }) },
  );
  // Not all of them were refused: the ways behind the checks were tried as well.
  const done = [...told].reduce((sum, [status, count]) => sum + (status < 300 ? count : 0), 0);
  expect(done / REQUESTS).toBeGreaterThan(0.1);
}, 600_000);
