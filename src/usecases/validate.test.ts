import { expect, test } from 'vitest';
import { isRefusal } from '@/core/refusal';
import { MarketplaceForm } from './marketplaces/requests';
import { EditNames } from './names/requests';
import { ConfirmRenewal, QuoteRenewal } from './orders/requests';
import { readRequest } from './validate';

test('numbers may come as text, and blanks mean “not said”', async () => {
  const request = await readRequest(QuoteRenewal, { items: [{ nameId: '7', years: '2' }], taxPercent: '' });
  expect(request).toMatchObject({ items: [{ nameId: 7, years: 2 }] });
  expect(isRefusal(request) ? null : request.taxPercent).toBeUndefined();
});

test.each([
  [QuoteRenewal, { items: [] }, 'items', 'Choose at least one name.'],
  [QuoteRenewal, { items: [{ nameId: 1, years: 1.5 }] }, 'items.0.years', 'Choose a whole number of years.'],
  [QuoteRenewal, { items: [{ nameId: 1, years: 1 }], taxPercent: 120 }, 'taxPercent', 'Tax is 0 to 100 percent.'],
  [
    ConfirmRenewal,
    { id: 'x', items: [{ nameId: 1, done: true }], chargedOn: '2026-11-24' },
    'id',
    'This is not an id of ours. Load the page again.',
  ],
  [EditNames, { nameIds: [1], edit: { colour: 'red' } }, 'edit.colour', 'There is no field “colour” here.'],
  [EditNames, { nameIds: [1], edit: { addTags: ['x'.repeat(61)] } }, 'edit.addTags', 'A tag has 60 letters at most.'],
] as const)('%# is refused by its first wrong field', async (type, input, field, message) => {
  expect(await readRequest(type as typeof EditNames, input)).toMatchObject({
    kind: 'refusal',
    code: 'request-invalid',
    field,
    message,
  });
});

test('a blank text in a table is missing, not too long, and is named by its cell', async () => {
  const sent = { csvColumns: [{ heading: '', field: 'name' }] };
  expect(await readRequest(MarketplaceForm, sent)).toMatchObject({
    fields: { 'csvColumns.0.heading': 'Write something here.' },
  });
});

test.each([[null], [undefined], ['text'], [5], [[]]])('%j is no request', async (input) => {
  expect(await readRequest(EditNames, input)).toMatchObject({ code: 'request-not-object' });
});
