import 'reflect-metadata';
import { describe, expect, test } from 'vitest';
import { refuse } from '@/core/refusal';
import { AccountForm } from '@/usecases/accounts/requests';
import { EditNames } from '@/usecases/names/requests';
import { QuoteRenewal } from '@/usecases/orders/requests';
import { KeepAfterAll } from '@/usecases/rescue/requests';
import { SaveListings } from '@/usecases/selling/requests';
import { namesIn, requestSchema, speakingOfNames, withIds } from './requestSchemas';

type Members = Record<string, Record<string, unknown>>;
const properties = (schema: object) => (schema as { properties: Members }).properties;

describe('a request class as JSON Schema', () => {
  test('its rules: types, bounds, lengths, what must be there', () => {
    const schema = requestSchema(AccountForm);
    expect(properties(schema).leadDays).toMatchObject({ type: 'integer', minimum: 0, maximum: 90 });
    expect(properties(schema).label).toMatchObject({ type: 'string', maxLength: 60 });
    expect(schema.required).toEqual(expect.arrayContaining(['label', 'currency', 'leadDays', 'paymentMethods']));
    expect(schema.required).not.toContain('notes');
    expect(schema.additionalProperties).toBe(false);
  });

  test('nested members stand where they are, as lists and as objects', () => {
    const listings = properties(requestSchema(SaveListings)).listings as { items: object };
    const listing = properties(listings.items);
    expect(listing.prices).toMatchObject({ type: 'object' });
    expect(properties(listing.prices as object).asking).toMatchObject({ type: 'integer', minimum: 1 });
  });

  test('names are asked for by name, in lists and within them', () => {
    expect(Object.keys(properties(requestSchema(EditNames)))).toEqual(['names', 'edit']);
    const items = properties(requestSchema(QuoteRenewal)).items as { items: { required: string[] } };
    expect(items.items.required).toEqual(['name', 'years']);
    expect(properties(requestSchema(KeepAfterAll)).names).toMatchObject({ type: 'array', minItems: 1 });
  });

  test('what the address says is not asked for', () => {
    const schema = requestSchema(EditNames, ['nameIds']);
    expect(Object.keys(properties(schema))).toEqual(['edit']);
    expect(schema.required).toEqual(['edit']);
  });
});

describe('a body by name', () => {
  const body = {
    items: [
      { name: 'kelpkiln.com', years: 1 },
      { name: 'möwe.de', years: 2 },
    ],
    promotion: { code: 'name' },
  };
  test('its names are found where its class looks for them, and become numbers there', () => {
    expect(namesIn(QuoteRenewal, body)).toEqual(['kelpkiln.com', 'möwe.de']);
    expect(withIds(QuoteRenewal, body, (name) => name.length)).toEqual({
      items: [
        { nameId: 12, years: 1 },
        { nameId: 7, years: 2 },
      ],
      promotion: { code: 'name' },
    });
  });

  test('what is of another shape goes on as it is: the class refuses it', () => {
    for (const odd of [{ items: 'x' }, { items: [null, 3] }, { items: { name: 'a.com' } }, { name: 'a.com' }])
      expect(withIds(QuoteRenewal, odd, () => 1)).toEqual(odd);
    expect(withIds(EditNames, { names: 'a.com' }, () => 1)).toEqual({ nameIds: 'a.com' });
    expect(withIds(EditNames, { names: [1, 'a.com'] }, () => 9)).toEqual({ nameIds: [1, 9] });
  });

  test('a refusal speaks of names too', () => {
    const refused = {
      ...refuse('request-invalid', 'Write a whole number.', 'items.0.nameId'),
      fields: { 'items.0.nameId': 'Write a whole number.', nameIds: 'Choose at least one name.' },
    };
    expect(speakingOfNames(refused)).toMatchObject({
      field: 'items.0.name',
      fields: { 'items.0.name': 'Write a whole number.', names: 'Choose at least one name.' },
    });
  });
});
