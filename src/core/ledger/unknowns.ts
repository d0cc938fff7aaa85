import { GONE_PHASES, PHASES } from '../lifecycle';
import { flagReader } from './columns';
import { type LedgerAccount, PURPOSES } from './data';
import { type LedgerDay, phaseCode, settingCode } from './ledgerDay';
import type { LedgerRow } from './projection';

/** What nobody has said yet, and how much of the forecast rests on it. */
export interface Unknowns {
  /** Names whose end of term is not known: nothing is told of them at all. */
  readonly ends: number;
  /** Names of which nobody has said whether the registrar renews them by itself. */
  readonly settings: number;
  /** Names without a known renewal price, and by which prices all of them would have one. */
  readonly unpriced: number;
  readonly prices: readonly { readonly accountId: number; readonly ending: string; readonly names: number }[];
  /** Accounts that charge by themselves, with nothing said of what they pay from, or with a balance that is not known. */
  readonly accounts: readonly { readonly accountId: number; readonly names: number }[];
  /** Names whose forecast rests on one of these. */
  readonly resting: number;
  readonly names: number;
}

/** True for an account of which nobody has said from what it pays, or how much stands there. */
export function lacksMeans({
  paymentMethods,
  balanceMinor,
}: Pick<LedgerAccount, 'paymentMethods' | 'balanceMinor'>): boolean {
  return paymentMethods.length === 0 || (paymentMethods[0]?.kind === 'balance' && balanceMinor === null);
}

/** Whether something has to be known of a name at all: not where it is being dropped, or gone. */
function counts({ projection, phase }: LedgerDay): (place: number) => boolean {
  const { flags } = projection.names.columns;
  const [dropped, purposeOf] = [PURPOSES.indexOf('drop'), flagReader('purpose')];
  const isGone = new Uint8Array(PHASES.length + 1);
  for (const gone of GONE_PHASES) isGone[phaseCode(gone)] = 1;
  return (place) => purposeOf(flags[place] as number) !== dropped && isGone[phase[place] as number] === 0;
}

/** What may be missing of a name itself; a price and the means are missing of an ending and of an account. */
const LACKS = {
  end: ({ termEnd }: LedgerDay, place: number) => Number.isNaN(termEnd[place]),
  setting: ({ setting }: LedgerDay, place: number) => setting[place] === UNKNOWN,
} as const;
export type Lacking = keyof typeof LACKS;
const UNKNOWN = settingCode('unknown');
const [ON, STALLED] = [settingCode('on'), settingCode('stalled')];
const isCharged = (setting: number) => setting === ON || setting === STALLED;

/** The first `limit` of the names that `unknownsOf` counts as lacking something. */
export function namesLacking(ledger: LedgerDay, what: Lacking, limit: number): LedgerRow[] {
  const found: number[] = [];
  const isCounted = counts(ledger);
  for (let place = 0; place < ledger.length && found.length < limit; place += 1)
    if (isCounted(place) && LACKS[what](ledger, place)) found.push(place);
  return ledger.rows(found);
}

/** Counts what is not known of a ledger. */
export function unknownsOf(ledger: LedgerDay): Unknowns {
  const { groups, names, index } = ledger.projection;
  const isCounted = counts(ledger);
  let [ends, settings, unpriced, resting, counted] = [0, 0, 0, 0, 0];
  // Prices and means are the same for all names of a group.
  const priced = groups.samples.map((place) => ledger.costs(place).renewal !== null);
  const meansLacking = groups.samples.map((place) => {
    const account = index.accounts.get(names.accountId(place));
    return account !== undefined && lacksMeans(account);
  });
  const unpricedOf = new Int32Array(groups.samples.length);
  const withoutMeans = new Map<number, number>();
  for (let place = 0; place < ledger.length; place += 1) {
    if (!isCounted(place)) continue;
    const group = groups.groupOf[place] as number;
    counted += 1;
    const noEnd = LACKS.end(ledger, place);
    const noSetting = LACKS.setting(ledger, place);
    const noPrice = !priced[group];
    const noMeans = meansLacking[group] === true && isCharged(ledger.setting[place] as number);
    if (noEnd) ends += 1;
    if (noSetting) settings += 1;
    if (noPrice) {
      unpriced += 1;
      unpricedOf[group] = (unpricedOf[group] as number) + 1;
    }
    if (noMeans) {
      const accountId = names.accountId(place);
      withoutMeans.set(accountId, (withoutMeans.get(accountId) ?? 0) + 1);
    }
    if (noEnd || noSetting || noPrice || noMeans) resting += 1;
  }
  return {
    ends,
    settings,
    unpriced,
    prices: unpricedEndings(ledger, unpricedOf),
    accounts: [...withoutMeans].map(([accountId, count]) => ({ accountId, names: count })),
    resting,
    names: counted,
  };
}

/** The prices by which all of them would have one, those of most names first. */
function unpricedEndings({ projection: { groups, names } }: LedgerDay, unpricedOf: Int32Array): Unknowns['prices'] {
  const lines = new Map<string, { accountId: number; ending: string; names: number }>();
  for (const [group, place] of groups.samples.entries()) {
    const count = unpricedOf[group] as number;
    if (count === 0) continue;
    const [accountId, ending] = [names.accountId(place), names.ending(place)];
    const key = `${accountId} ${ending}`;
    const line = lines.get(key);
    if (line) line.names += count;
    else lines.set(key, { accountId, ending, names: count });
  }
  return [...lines.values()].sort((a, b) => b.names - a.names || (a.ending < b.ending ? -1 : 1));
}
