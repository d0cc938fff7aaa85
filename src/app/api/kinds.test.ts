import { Ajv2020 } from 'ajv/dist/2020';
import addFormats from 'ajv-formats';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { instant as at, type Instant, type TermEnd } from '@/core/time';
import {
  amountOf,
  byName,
  documentOf,
  from,
  instant,
  type Kind,
  list,
  money,
  named,
  namedSchemas,
  oneOf,
  orNull,
  termEnd,
  text,
  whole,
  yesNo,
} from './kinds';

const ajv = new Ajv2020({ strict: false, allErrors: true });
addFormats(ajv as never);
/** What is written is what is described. */
function agree<T>(kind: Kind<T>, value: T): unknown {
  const schema = {
    $defs: { Money: { type: 'object', required: ['amount', 'currency'] } },
    ...JSON.parse(JSON.stringify(kind.schema).replaceAll('#/components/schemas/', '#/$defs/')),
  };
  const written = JSON.parse(JSON.stringify(kind.write(value)));
  expect(ajv.validate(schema, written) ? [] : ajv.errors).toEqual([]);
  return written;
}

interface Sample {
  readonly id: number;
  readonly when: Instant;
  readonly end: TermEnd | null;
  readonly minor: number | null;
  readonly currency: string | null;
  readonly secret: string;
  readonly tags: readonly string[];
}
const sample: Sample = {
  id: 7,
  when: at('2026-11-24T09:12:00Z'),
  end: { at: at('2027-01-31T00:00:00Z'), precision: 'day' },
  minor: 1138,
  currency: 'USD',
  secret: 'nobody is told',
  tags: ['reeds'],
};
const document = documentOf<Sample>()({
  id: whole,
  when: instant,
  end: orNull(termEnd),
  price: amountOf(({ minor, currency }: Sample) => ({ minor, currency })),
  tags: list(text),
  isFirst: from(({ id }: Sample) => id === 1, yesNo),
});

describe('a document describes and writes itself', () => {
  test('its members, each as its kind says, and none that is not named', () => {
    expect(agree(document, sample)).toEqual({
      id: 7,
      when: '2026-11-24T09:12:00Z',
      end: '2027-01-31',
      price: { amount: '11.38', currency: 'USD' },
      tags: ['reeds'],
      isFirst: false,
    });
  });

  test('what is not known is null: an end, an amount without its figure or its currency', () => {
    const bare = { ...sample, end: null, minor: null };
    expect(agree(document, bare)).toMatchObject({ end: null, price: null });
    expect(agree(document, { ...sample, currency: null })).toMatchObject({ price: null });
  });

  test('under a name it is described once', () => {
    const kind = named('SampleOfATest', document);
    expect(kind.schema).toEqual({ $ref: '#/components/schemas/SampleOfATest' });
    expect(namedSchemas().SampleOfATest).toEqual(document.schema);
    expect(kind.write(sample)).toEqual(document.write(sample));
  });

  test('values by names, and words of a few', () => {
    expect(agree(byName(money), { 2: { minor: 1990, currency: 'USD' } })).toEqual({
      2: { amount: '19.90', currency: 'USD' },
    });
    expect(agree(oneOf('on', 'off'), 'on')).toBe('on');
  });

  test('any instant, end and amount are written as they are described', () => {
    const instants = fc.integer({ min: 0, max: 4e12 }).map((ms) => ms as Instant);
    fc.assert(
      fc.property(instants, fc.boolean(), fc.integer({ min: -1e12, max: 1e12 }), (when, isDay, minor) => {
        const end: TermEnd = { at: when, precision: isDay ? 'day' : 'instant' };
        agree(document, { ...sample, when, end, minor });
      }),
      { numRuns: 300 },
    );
  });
});
