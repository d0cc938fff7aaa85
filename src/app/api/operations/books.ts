import type { RegistryFee } from '@/core/lifecycle';
import type { Rate } from '@/core/money';
import { isRefusal, refuse } from '@/core/refusal';
import { accounts } from '@/usecases/accounts/accounts';
import { pricesOverYears } from '@/usecases/accounts/overYears';
import {
  importPrices,
  type ListedChange,
  previewPrices,
  priceRows,
  removePrice,
  savePrice,
  saveRise,
} from '@/usecases/accounts/prices';
import { PriceForm, RiseForm } from '@/usecases/accounts/requests';
import {
  type MarketplaceRow,
  marketplace,
  marketplaces,
  removeMarketplaceLink,
  saveMarketplace,
  saveMarketplaceLink,
  testMarketplace,
} from '@/usecases/marketplaces/marketplaces';
import { MarketplaceForm, MarketplaceLinkForm } from '@/usecases/marketplaces/requests';
import { PolicyForm, policies, removePolicy, savePolicy, saveRegistryFee } from '@/usecases/policies/policies';
import { importRates, previewRates, type RatesPreview, rates, saveRate, saveRatesSource } from '@/usecases/rates/rates';
import { RateForm, RatesFile, RatesSourceForm } from '@/usecases/rates/requests';
import { OfficeForm, officeSettings, saveOffice } from '@/usecases/settings';
import { idIn, textOf, wholeOf } from '../asked';
import { bodyOf, carriedOut, count, found, made, said } from '../documents/answers';
import {
  change,
  type NamedPrice,
  office,
  overYears,
  type Policies,
  policy,
  price,
  rate,
  shop,
} from '../documents/books';
import { day, documentOf, from, list, money, text, whole } from '../kinds';
import { type AnyOperation, type Asked, operation } from '../operation';

const theMarketplace = async ({ deps }: Asked, id: number) => found(await marketplace(deps, id), 'marketplace');

const LIST_BODY = bodyOf({ text: { type: 'string' }, source: { type: 'string', maxLength: 200 } }, ['text']);

const listBytes = (asked: Asked) => new TextEncoder().encode(textOf(asked, 'text'));

export const BOOKS: readonly AnyOperation[] = [
  operation({
    method: 'GET',
    path: '/prices',
    summary: 'Prices of every account',
    answer: documentOf<NamedPrice[]>()({ prices: from((rows: NamedPrice[]) => rows, list(price)) }),
    run: async ({ deps }) => {
      const labels = new Map((await accounts(deps)).map(({ id, label }) => [id, label]));
      return (await priceRows(deps)).map((row) => ({ ...row, account: labels.get(row.accountId) ?? '' }));
    },
  }),
  operation({
    method: 'GET',
    path: '/prices/over-years',
    summary:
      'What holding a name of an ending costs over years at each account, and the cheapest way of all, moves included',
    query: {
      ending: { schema: { type: 'string' }, description: 'The ending, without its dot.', required: true },
      years: { schema: { type: 'integer', minimum: 1, maximum: 10, default: 5 }, description: 'Over how many years.' },
      heldAt: { schema: { type: 'integer' }, description: 'The account where the name is held; left out: it is new.' },
      monthsLeft: { schema: { type: 'number', minimum: 0, maximum: 120 }, description: 'Months that are paid there.' },
      newAt: { schema: { type: 'string' }, description: 'Accounts at which one is a new customer, by commas.' },
      code: { schema: { type: 'string' }, description: 'A code that may be told.' },
      privacy: { schema: { type: 'boolean' }, description: 'With privacy in every year.' },
    },
    answer: overYears,
    run: ({ deps, query }) => pricesOverYears(deps, query),
  }),
  operation({
    method: 'POST',
    path: '/prices',
    summary: 'Write a price of an ending, or of one name',
    body: PriceForm,
    answer: carriedOut,
    run: ({ deps, body }) => savePrice(deps, body),
  }),
  operation({
    method: 'DELETE',
    path: '/prices/{id}',
    summary: 'Remove a price',
    answer: carriedOut,
    run: (asked) => removePrice(asked.deps, idIn(asked)),
  }),
  operation({
    method: 'POST',
    path: '/accounts/{id}/price-list/preview',
    summary: 'What a price list (CSV) would bring: nothing is written',
    bodySchema: LIST_BODY,
    answer: documentOf<ListedChange[]>()({ changes: from((rows: ListedChange[]) => rows, list(change)) }),
    run: (asked) => previewPrices(asked.deps, idIn(asked), listBytes(asked), textOf(asked, 'source')),
  }),
  operation({
    method: 'POST',
    path: '/accounts/{id}/price-list',
    summary: 'Bring in a price list (CSV)',
    bodySchema: LIST_BODY,
    answer: count,
    run: (asked) => importPrices(asked.deps, idIn(asked), listBytes(asked), textOf(asked, 'source')),
  }),
  operation({
    method: 'PUT',
    path: '/price-rises',
    summary: 'What is expected of an account’s prices of an ending, in percent a year',
    body: RiseForm,
    answer: carriedOut,
    run: ({ deps, body }) => saveRise(deps, body),
  }),
  operation({
    method: 'GET',
    path: '/policies',
    summary: 'Lifecycle rules of every ending',
    answer: documentOf<Policies>()({
      policies: list(policy),
      fees: list(
        documentOf<RegistryFee>()({
          from: day,
          fee: from((fee: RegistryFee) => fee, money),
          source: from(({ source }: RegistryFee) => source as string, text),
        }),
      ),
    }),
    run: ({ deps }) => policies(deps),
  }),
  operation({
    method: 'PUT',
    path: '/policies/{ending}',
    summary: 'Write the rules of an ending; `*` stands for every ending without rules of its own',
    body: PolicyForm,
    fills: { ending: 'ending' },
    answer: carriedOut,
    run: ({ deps, body }) => savePolicy(deps, body),
  }),
  operation({
    method: 'DELETE',
    path: '/policies/{ending}',
    summary: 'Remove the rules of an ending: the usual ones count for it again',
    answer: carriedOut,
    run: ({ deps, path }) => removePolicy(deps, path.ending ?? ''),
  }),
  operation({
    method: 'POST',
    path: '/registry-fees',
    summary: 'The yearly fee of a registry from a day on, in minor units',
    bodySchema: bodyOf({
      from: { type: 'string', format: 'date' },
      minor: { type: 'integer', minimum: 0 },
      currency: { type: 'string', pattern: '^[A-Z]{3}$' },
    }),
    answer: carriedOut,
    run: (asked) => {
      const minor = wholeOf(asked, 'minor');
      return minor >= 0
        ? saveRegistryFee(asked.deps, textOf(asked, 'from'), minor, textOf(asked, 'currency'))
        : Promise.resolve(refuse('request-invalid', 'minor is a whole number of minor units.', 'minor'));
    },
  }),
  operation({
    method: 'GET',
    path: '/marketplaces',
    summary: 'Marketplaces and their terms',
    answer: documentOf<MarketplaceRow[]>()({ marketplaces: from((rows: MarketplaceRow[]) => rows, list(shop)) }),
    run: ({ deps }) => marketplaces(deps),
  }),
  operation({
    method: 'POST',
    path: '/marketplaces',
    summary: 'Add a marketplace',
    body: MarketplaceForm,
    status: 201,
    answer: made,
    run: ({ deps, body }) => saveMarketplace(deps, body),
  }),
  operation({
    method: 'GET',
    path: '/marketplaces/{id}',
    summary: 'One marketplace',
    answer: shop,
    run: (asked) => theMarketplace(asked, idIn(asked)),
  }),
  operation({
    method: 'PUT',
    path: '/marketplaces/{id}',
    summary: 'Write the terms of a marketplace anew',
    body: MarketplaceForm,
    fills: { id: 'id' },
    answer: shop,
    run: async (asked) => {
      const id = await saveMarketplace(asked.deps, asked.body);
      return isRefusal(id) ? id : theMarketplace(asked, id);
    },
  }),
  operation({
    method: 'PUT',
    path: '/marketplaces/{marketplaceId}/link',
    summary: 'Set the link of a marketplace',
    body: MarketplaceLinkForm,
    fills: { marketplaceId: 'marketplaceId' },
    answer: carriedOut,
    run: ({ deps, body }) => saveMarketplaceLink(deps, body),
  }),
  operation({
    method: 'DELETE',
    path: '/marketplaces/{id}/link',
    summary: 'Take the link of a marketplace away',
    answer: carriedOut,
    run: (asked) => removeMarketplaceLink(asked.deps, idIn(asked)),
  }),
  operation({
    method: 'POST',
    path: '/marketplaces/{id}/link/test',
    summary: 'Log in at a marketplace; answers what it calls itself',
    answer: said,
    run: (asked) => testMarketplace(asked.deps, idIn(asked)),
  }),
  operation({
    method: 'GET',
    path: '/rates',
    summary: 'Rates between currencies, by day',
    answer: documentOf<Rate[]>()({ rates: from((rows: Rate[]) => rows, list(rate)) }),
    run: ({ deps }) => rates(deps),
  }),
  operation({
    method: 'POST',
    path: '/rates',
    summary: 'Write a rate from a day on',
    body: RateForm,
    answer: carriedOut,
    run: ({ deps, body }) => saveRate(deps, body),
  }),
  operation({
    method: 'POST',
    path: '/rates/file/preview',
    summary: 'What a file of rates would bring: nothing is written',
    body: RatesFile,
    answer: documentOf<RatesPreview>()({
      count: whole,
      firstDay: day,
      lastDay: day,
      newest: list(rate),
      leftOut: whole,
    }),
    run: ({ deps, body }) => previewRates(deps, body),
  }),
  operation({
    method: 'POST',
    path: '/rates/file',
    summary: 'Bring in a file of rates',
    body: RatesFile,
    answer: count,
    run: ({ deps, body }) => importRates(deps, body),
  }),
  operation({
    method: 'PUT',
    path: '/rates/source',
    summary: 'Where rates are read daily',
    body: RatesSourceForm,
    answer: count,
    run: ({ deps, body }) => saveRatesSource(deps, body),
  }),
  operation({
    method: 'GET',
    path: '/office',
    summary: 'Currency, zone and the like of the office',
    answer: office,
    run: ({ deps }) => officeSettings(deps),
  }),
  operation({
    method: 'PUT',
    path: '/office',
    summary: 'Write the settings of the office',
    body: OfficeForm,
    answer: carriedOut,
    run: ({ deps, body }) => saveOffice(deps, body),
  }),
];
