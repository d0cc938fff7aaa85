import { type Amount, formatDecimal } from '@/core/money';
import { formatInstant, formatTermEnd, type Instant, type TermEnd } from '@/core/time';
import type { Schema } from './schemas';

/** What a member of an answer is: how it is described (JSON Schema), and how it is written. The two cannot differ. */
export interface Kind<in T> {
  readonly schema: Schema;
  write(value: T): unknown;
}

const same = (value: unknown) => value;
const plain = <T>(schema: Schema): Kind<T> => ({ schema, write: same });

export const text: Kind<string> = plain({ type: 'string' });
export const whole: Kind<number> = plain({ type: 'integer' });
export const figure: Kind<number> = plain({ type: 'number' });
export const yesNo: Kind<boolean> = plain({ type: 'boolean' });
/** A day as `YYYY-MM-DD`. */
export const day: Kind<string> = plain({ type: 'string', format: 'date' });
/** An instant as RFC 3339 in UTC. */
export const instant: Kind<Instant> = { schema: { type: 'string', format: 'date-time' }, write: formatInstant };
/** The end of a term: an instant, or a day where its source gave only that. */
export const termEnd: Kind<TermEnd> = {
  schema: {
    anyOf: [
      { type: 'string', format: 'date-time' },
      { type: 'string', format: 'date' },
    ],
  },
  write: formatTermEnd,
};
/** An amount as `{ "amount": "11.38", "currency": "USD" }`. */
export const money: Kind<Amount> = {
  schema: { $ref: '#/components/schemas/Money' },
  write: (amount) => ({ amount: formatDecimal(amount), currency: amount.currency }),
};

/** One of some words. */
export const oneOf = <T extends string>(...values: readonly T[]): Kind<T> => plain({ type: 'string', enum: values });

/** Something, or `null` where it is not known or there is none. */
export const orNull = <T>(kind: Kind<T>): Kind<T | null | undefined> => ({
  schema: { anyOf: [kind.schema, { type: 'null' }] },
  write: (value) => (value === null || value === undefined ? null : kind.write(value)),
});

export const list = <T>(kind: Kind<T>): Kind<readonly T[]> => ({
  schema: { type: 'array', items: kind.schema },
  write: (values) => values.map((value) => kind.write(value)),
});

/** Values by names that the description does not know beforehand. */
export const byName = <T>(kind: Kind<T>): Kind<Readonly<Record<string, T>>> => ({
  schema: { type: 'object', additionalProperties: kind.schema },
  write: (values) => Object.fromEntries(Object.entries(values).map(([name, value]) => [name, kind.write(value)])),
});

/** A member that is made of the whole: under another name, or of several of its parts. */
interface Made<T> {
  readonly schema: Schema;
  readonly make: (of: T) => unknown;
}

/** A member made of the whole by `get`. */
export const from = <T, V>(get: (of: T) => V, kind: Kind<V>): Made<T> => ({
  schema: kind.schema,
  make: (of) => kind.write(get(of)),
});

/** An amount whose figure and currency stand apart; `null` where the figure is not known. */
export const amountOf = <T>(get: (of: T) => { minor: number | null | undefined; currency: string | null }): Made<T> =>
  from((of: T) => {
    const { minor, currency } = get(of);
    return minor === null || minor === undefined || currency === null ? null : { minor, currency };
  }, orNull(money));

type Members<T, M> = { readonly [K in keyof M]: K extends keyof T ? Kind<T[K]> | Made<T> : Made<T> };

/** An object with these members and no others: what they are called in the code, or what is made of it. */
export const documentOf =
  <T>() =>
  <M>(members: Members<T, M>): Kind<T> => {
    const entries = Object.entries(members) as [string, Kind<unknown> | Made<T>][];
    return {
      schema: {
        type: 'object',
        properties: Object.fromEntries(entries.map(([name, { schema }]) => [name, schema])),
        required: entries.map(([name]) => name),
      },
      write: (value) =>
        Object.fromEntries(
          entries.map(([name, member]) => [
            name,
            'make' in member ? member.make(value) : member.write((value as Record<string, unknown>)[name]),
          ]),
        ),
    };
  };

/** What a document is made of, described once under a name of its own. */
export const named = <T>(name: string, kind: Kind<T>): Kind<T> => {
  NAMED.set(name, kind.schema);
  return { schema: { $ref: `#/components/schemas/${name}` }, write: (value) => kind.write(value) };
};

const NAMED = new Map<string, Schema>();

/** The schemas of all documents that have a name. */
export const namedSchemas = (): Readonly<Record<string, Schema>> => Object.fromEntries(NAMED);

/** A document that is put together elsewhere, described among the schemas under its name. */
export const ready = (name: string): Kind<object> => ({
  schema: { $ref: `#/components/schemas/${name}` },
  write: same,
});
