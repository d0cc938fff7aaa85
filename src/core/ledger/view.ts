import { AUTO_RENEW_SETTINGS, type AutoRenewSetting } from '../funding';
import { PHASES, type Phase } from '../lifecycle';
import { PURPOSES, type Purpose } from './data';

export const SORT_KEYS = [
  'deadline',
  'name',
  'account',
  'ending',
  'termEnd',
  'auto',
  'phase',
  'cost',
  'asking',
  'registered',
  'spent',
  'perYear',
  'checked',
] as const;
export type SortKey = (typeof SORT_KEYS)[number];

/** Which names are shown and in which order. Empty lists and `null` mean "any". */
export interface LedgerView {
  readonly text: string;
  readonly accountIds: readonly number[];
  readonly endings: readonly string[];
  readonly phases: readonly Phase[];
  readonly settings: readonly AutoRenewSetting[];
  readonly purposes: readonly Purpose[];
  readonly tags: readonly string[];
  readonly dueWithinDays: number | null;
  /** Cost of keeping the name now, minor units of the home currency. */
  readonly costFrom: number | null;
  readonly costTo: number | null;
  readonly askingFrom: number | null;
  readonly askingTo: number | null;
  readonly forSale: boolean | null;
  readonly neverLost: boolean | null;
  /** Only names of which nobody has said when their term ends. */
  readonly dateless: boolean;
  readonly sort: SortKey;
  readonly descending: boolean;
}

export const EVERY_NAME: LedgerView = {
  text: '',
  accountIds: [],
  endings: [],
  phases: [],
  settings: [],
  purposes: [],
  tags: [],
  dueWithinDays: null,
  costFrom: null,
  costTo: null,
  askingFrom: null,
  askingTo: null,
  forSale: null,
  neverLost: null,
  dateless: false,
  sort: 'deadline',
  descending: false,
};

const MOST_DAYS = 3660;

function oneOf<T extends string>(values: readonly T[], texts: readonly string[]): T[] {
  return texts.filter((text): text is T => (values as readonly string[]).includes(text));
}

function wholeNumber(text: string | null, most: number): number | null {
  if (text === null || !/^\d{1,15}$/.test(text)) return null;
  return Math.min(Number(text), most);
}

function yesOrNo(text: string | null): boolean | null {
  return text === 'yes' ? true : text === 'no' ? false : null;
}

/** Reads a view from the query of a URL. What it does not understand it leaves out, so that old bookmarks still open. */
export function viewFromQuery(query: URLSearchParams): LedgerView {
  const list = (key: string) =>
    query
      .getAll(key)
      .flatMap((value) => value.split(','))
      .filter((value) => value !== '');
  const sort = query.get('sort') ?? '';
  const key = oneOf(SORT_KEYS, [sort.replace(/^-/, '')])[0];
  return {
    text: (query.get('q') ?? '').slice(0, 200),
    accountIds: list('account').flatMap((value) => wholeNumber(value, Number.MAX_SAFE_INTEGER) ?? []),
    endings: list('ending'),
    phases: oneOf(PHASES, list('phase')),
    settings: oneOf(AUTO_RENEW_SETTINGS, list('auto')),
    purposes: oneOf(PURPOSES, list('purpose')),
    tags: list('tag'),
    dueWithinDays: wholeNumber(query.get('within'), MOST_DAYS),
    costFrom: wholeNumber(query.get('costFrom'), Number.MAX_SAFE_INTEGER),
    costTo: wholeNumber(query.get('costTo'), Number.MAX_SAFE_INTEGER),
    askingFrom: wholeNumber(query.get('askingFrom'), Number.MAX_SAFE_INTEGER),
    askingTo: wholeNumber(query.get('askingTo'), Number.MAX_SAFE_INTEGER),
    forSale: yesOrNo(query.get('forSale')),
    neverLost: yesOrNo(query.get('neverLost')),
    dateless: query.get('end') === 'unknown',
    sort: key ?? 'deadline',
    descending: key !== undefined && sort.startsWith('-'),
  };
}

/** Writes a view as the query of a URL; the plain view is the empty query. */
export function queryFromView(view: LedgerView): URLSearchParams {
  const query = new URLSearchParams();
  const put = (key: string, value: string | number | null) => {
    if (value !== null && value !== '') query.set(key, String(value));
  };
  const yesNo = (value: boolean | null) => (value === null ? null : value ? 'yes' : 'no');
  put('q', view.text);
  put('account', view.accountIds.join(','));
  put('ending', view.endings.join(','));
  put('phase', view.phases.join(','));
  put('auto', view.settings.join(','));
  put('purpose', view.purposes.join(','));
  for (const tag of view.tags) query.append('tag', tag);
  put('within', view.dueWithinDays);
  put('costFrom', view.costFrom);
  put('costTo', view.costTo);
  put('askingFrom', view.askingFrom);
  put('askingTo', view.askingTo);
  put('forSale', yesNo(view.forSale));
  put('neverLost', yesNo(view.neverLost));
  put('end', view.dateless ? 'unknown' : null);
  if (view.sort !== 'deadline' || view.descending) put('sort', `${view.descending ? '-' : ''}${view.sort}`);
  return query;
}
