import fc, { type Arbitrary } from 'fast-check';
import type { Schema } from '@/app/api/schemas';

type Members = Readonly<Record<string, Schema>>;

/** Words that mean something in the ledger of the demo, and some that try what must not be. */
const WORDS = [
  'kelpkiln.com',
  'petrelworks.net',
  'möwenspeicher.de',
  'nobody.example',
  'com',
  'USD',
  'reeds',
  '2026-12-01',
  '12.50',
  '0',
  '',
  ' ',
  "'; drop table names; --",
  '\u202Emoc',
  '%00',
  '9999999999',
];

const text: Arbitrary<string> = fc.oneof(
  { weight: 4, arbitrary: fc.constantFrom(...WORDS) },
  { weight: 2, arbitrary: fc.string({ maxLength: 12 }) },
  { weight: 1, arbitrary: fc.string({ unit: 'grapheme', maxLength: 8 }) },
);
const day = fc.constantFrom('2026-11-24', '2027-02-28', '2028-02-29', '2026-02-30', '1970-01-01');
const instant = fc.constantFrom('2026-11-24T09:12:00Z', '2027-06-01T00:00:00Z', '1999-12-31T23:59:59Z');

function texts({ pattern, format, maxLength }: Schema): Arbitrary<string> {
  if (typeof pattern === 'string') return fc.oneof(fc.stringMatching(new RegExp(pattern, 'u')), text);
  if (format === 'date') return fc.oneof({ weight: 4, arbitrary: day }, text);
  if (format === 'date-time') return fc.oneof({ weight: 4, arbitrary: instant }, text);
  if (format === 'email') return fc.oneof(fc.constant('ann@office.example'), text);
  if (format === 'uuid') return fc.oneof(fc.uuid(), text);
  return typeof maxLength === 'number' && maxLength > 1000 ? fc.oneof(text, fc.constant('a,b\n1,2\n')) : text;
}

function figures({ minimum, maximum }: Schema, whole: boolean): Arbitrary<number> {
  const [least, most] = [Number(minimum ?? -5), Number(maximum ?? 1e6)];
  const edges = fc.constantFrom(least, most, least - 1, most + 1, 0, 1, 2);
  return fc.oneof(edges, whole ? fc.integer({ min: least, max: Math.max(least, most) }) : fc.double({ noNaN: true }));
}

/** Values that a JSON Schema allows, and some at its edges that it does not. */
export function valuesOf(schema: Schema, schemas: Members): Arbitrary<unknown> {
  if (typeof schema.$ref === 'string')
    return valuesOf(schemas[schema.$ref.split('/').at(-1) as string] as Schema, schemas);
  const choices = (schema.anyOf ?? schema.oneOf) as Schema[] | undefined;
  if (choices) return fc.oneof(...choices.map((one) => valuesOf(one, schemas)));
  if (Array.isArray(schema.enum)) return fc.oneof({ weight: 9, arbitrary: fc.constantFrom(...schema.enum) }, text);
  switch (schema.type) {
    case 'string':
      return texts(schema);
    case 'integer':
      return figures(schema, true);
    case 'number':
      return figures(schema, false);
    case 'boolean':
      return fc.boolean();
    case 'null':
      return fc.constant(null);
    case 'array':
      return fc.array(valuesOf((schema.items ?? {}) as Schema, schemas), { maxLength: 3 });
    case 'object':
      return objects(schema, schemas);
    default:
      return fc.jsonValue({ maxDepth: 2 });
  }
}

function objects({ properties, required = [], additionalProperties }: Schema, schemas: Members): Arbitrary<unknown> {
  if (!properties)
    return typeof additionalProperties === 'object' && additionalProperties !== null
      ? fc.dictionary(fc.string({ maxLength: 6 }), valuesOf(additionalProperties as Schema, schemas), { maxKeys: 3 })
      : fc.jsonValue({ maxDepth: 2 });
  const members = Object.entries(properties as Members).map(([name, schema]) => [name, valuesOf(schema, schemas)]);
  return fc.record(Object.fromEntries(members), { requiredKeys: required as never[] });
}
