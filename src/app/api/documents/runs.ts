import { ITEM_STATES, RUN_STATES } from '@/core/orders';
import { formatDay } from '@/core/time';
import type { OpenRenewal } from '@/usecases/orders/plan';
import type { ItemProgress, RunProgress } from '@/usecases/orders/start';
import {
  amountOf,
  byName,
  documentOf,
  figure,
  from,
  instant,
  list,
  money,
  named,
  oneOf,
  orNull,
  termEnd,
  text,
  whole,
  yesNo,
} from '../kinds';
import { type Ground, grounds } from './answers';

type Quoted = OpenRenewal['quote']['items'][number];

export type Row = OpenRenewal['renewal'];

type RowItem = Row['items'][number];

const quoted = documentOf<Quoted>()({
  name: from(({ ascii }: Quoted) => ascii, text),
  years: whole,
  from: from(({ oldEnd }: Quoted) => oldEnd, orNull(termEnd)),
  to: from(({ newEnd }: Quoted) => newEnd, orNull(termEnd)),
  cost: from(({ cost }: Quoted) => cost?.total, orNull(money)),
  isRuleOfThumb: from(({ cost }: Quoted) => cost?.ruleOfThumb ?? false, yesNo),
  lateFee: orNull(money),
  total: orNull(money),
  refused: from(
    ({ refusal }: Quoted) => refusal,
    orNull(documentOf<{ code: string; message: string }>()({ code: text, message: text })),
  ),
});

const item = documentOf<RowItem>()({
  name: from(({ ascii }: RowItem) => ascii, text),
  years: whole,
  state: oneOf(...ITEM_STATES),
  oldEnd: instant,
  newEnd: orNull(instant),
  quoted: amountOf(({ quotedMinor: minor, currency }: RowItem) => ({ minor, currency })),
  charged: amountOf(({ chargedMinor: minor, currency }: RowItem) => ({ minor, currency })),
  chargedOn: orNull(text),
  paymentMethod: orNull(text),
  reference: orNull(text),
});

const restsOn = ({ quote, renewal }: OpenRenewal): Ground[] => [
  {
    what: 'the prices of each account as the ledger has them',
    asOf: renewal.quoted ? formatDay(renewal.quoted.day) : null,
  },
  ...(quote.items.some((one) => one.cost?.ruleOfThumb)
    ? [{ what: 'a rule of thumb, where no price of a restore is known', asOf: null }]
    : []),
  ...(quote.items.some((one) => one.total === null)
    ? [{ what: 'names without a known price are left out of the sums', asOf: null }]
    : []),
];

const rowMembers = {
  id: text,
  action: oneOf('renew', 'restore'),
  status: oneOf(...RUN_STATES),
  madeAt: instant,
  person: orNull(text),
  undone: yesNo,
  taxPercent: orNull(figure),
  payBy: byName(text),
  items: list(item),
} as const;

export const runRow = named('RunHead', documentOf<Row>()(rowMembers));

export const run = named(
  'Run',
  documentOf<OpenRenewal>()({
    run: from(({ renewal }: OpenRenewal) => renewal, runRow),
    quote: from(({ quote }: OpenRenewal) => quote.items, list(quoted)),
    totals: from(({ quote }: OpenRenewal) => quote.totals, list(money)),
    restsOn: from(restsOn, grounds),
  }),
);

export const progress = named(
  'RunProgress',
  documentOf<RunProgress & { names: ReadonlyMap<number, string> }>()({
    linkedAccounts: list(whole),
    items: from(
      ({ items, names }: RunProgress & { names: ReadonlyMap<number, string> }) =>
        items.map((one) => ({ ...one, ascii: names.get(one.nameId) ?? '' })),
      list(
        documentOf<ItemProgress & { ascii: string }>()({
          name: from(({ ascii }) => ascii, text),
          state: oneOf(...ITEM_STATES),
          attempts: whole,
          live: amountOf(({ liveMinor: minor, liveCurrency: currency }) => ({ minor, currency })),
          charged: amountOf(({ chargedMinor: minor, currency }) => ({ minor, currency })),
          receipt: orNull(text),
          problem: orNull(text),
        }),
      ),
    ),
  }),
);
