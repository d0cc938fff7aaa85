import type { MoveSaving } from '@/core/ledger';
import type { Ground, MoveStage, MovingFacts } from '@/core/moving';
import { bestMoment, groundsAgainst, lastMoment, standingAt } from '@/core/moving';
import type { Instant } from '@/core/time';
import { formatAmount } from './figures';
import { type DayStyle, dayWords, untilWords } from './words';

/** What stands against a transfer, in words. */
export const GROUND_WORDS: Readonly<Record<Ground['kind'], string>> = {
  'registered lately': 'registered lately',
  'transferred lately': 'transferred lately',
  'holder changed lately': 'its holder changed lately',
  'transfer lock': 'the lock is on',
  'update lock': 'a lock against every change is on',
  'registry lock': 'locked by the registry',
  pending: 'a change is pending at the registry',
  redemption: 'in redemption',
  'pending delete': 'being deleted',
  'past its term': 'past its term',
  'charge not settled': 'a renewal may still be taken back: the year paid for would be lost',
  'over the ceiling': 'its term would run too far ahead',
};

const MENDS_WORDS: Readonly<Record<Ground['mends'], string>> = {
  time: 'wait',
  owner: 'take it off at the registrar first',
  registrar: 'ask the registrar why',
  renewal: 'renew it first',
  restore: 'restore it first',
  nobody: 'nothing can be done',
};

/** What mends a ground, and when it ends by itself. */
export function mendsWords({ mends, from, until }: Ground, asOf: Instant, style: DayStyle): string {
  const begins = from !== null && from > asOf ? `from ${dayWords(from, style)}` : '';
  const ends = until === null ? '' : `until ${untilWords(until, style)}`;
  const stretch = [begins, ends].filter(Boolean).join(' ');
  if (stretch) return mends === 'time' ? stretch : `${stretch}; then ${MENDS_WORDS[mends]}`;
  return MENDS_WORDS[mends];
}

/** The best day to request a transfer and why, in one sentence, and what is to be done or seen to first. */
export function bestDaySentence(facts: MovingFacts, asOf: Instant, style: DayStyle): string {
  const { phase, marks, lock } = facts;
  if (phase === null || marks === null)
    return 'Whether it can be transferred is not known: set the end of its term first.';
  const best = bestMoment(facts, asOf);
  const standing = standingAt(groundsAgainst(facts, asOf), asOf);
  if (best === null) return neverSentence(facts, standing, asOf, style);
  const isLocked = standing.some(({ mends }) => mends === 'owner');
  const first = isLocked ? ' Take the lock off first.' : lock === null ? ' Whether its lock is on is not known.' : '';
  return `${whenWords(facts, best, asOf, style)}.${first}`;
}

function whenWords(facts: MovingFacts, best: Instant, asOf: Instant, style: DayStyle): string {
  const { chargeAt } = facts;
  const last = lastMoment(facts);
  const before = chargeAt === null ? 'its term ends' : `the charge on ${dayWords(chargeAt, style)}`;
  const by = last !== null && last > best ? `, by ${dayWords(last, style)} so that it arrives before ${before}` : '';
  if (best <= asOf) return `It can be transferred now${by}`;
  const isAfter = chargeAt !== null && best > chargeAt;
  return `Best requested on ${dayWords(best, style)}${isAfter ? `: sooner, it would not arrive before ${before}, and the year paid for would be lost` : by}`;
}

/** Why there is no best day within a year. */
function neverSentence(facts: MovingFacts, standing: readonly Ground[], asOf: Instant, style: DayStyle): string {
  const cannot = standing.find(({ mends, losesYear }) => mends !== 'owner' && !losesYear);
  if (cannot && cannot.mends !== 'time')
    return `It cannot be transferred: ${GROUND_WORDS[cannot.kind]}, ${MENDS_WORDS[cannot.mends]}.`;
  if (cannot)
    return `It cannot be transferred: ${GROUND_WORDS[cannot.kind]}, ${cannot.until === null ? 'wait until that is settled' : mendsWords(cannot, asOf, style)}.`;
  const last = lastMoment(facts);
  return last !== null && last < asOf
    ? 'It cannot be transferred in time as it stands: renew it first.'
    : 'There is no good day for a transfer within a year.';
}

const WHY_NOT_WORDS: Readonly<Record<Exclude<MoveSaving['kind'], 'saves'>, string>> = {
  'nothing cheaper': 'No account is cheaper for it over',
  'price of its own': 'It has a price of its own: what it would cost elsewhere no list says, over',
  'not known here':
    'Whether moving it would save anything is not known: its account has no price that can be compared over',
  'not known elsewhere':
    'Whether moving it would save anything is not known: no other account has a price that can be compared over',
};

/** What moving would save, in one sentence. Amounts: minor units of the office's currency. */
export function savingSentence(
  saving: MoveSaving,
  homeCurrency: string,
  labelOf: (accountId: number) => string,
): string {
  if (saving.kind !== 'saves') return `${WHY_NOT_WORDS[saving.kind]} ${saving.years} years.`;
  const money = (minor: number) => formatAmount({ minor, currency: homeCurrency });
  const { accountId, years, savedMinor, stayMinor, path } = saving;
  const [move] = path.payments;
  const first = move ? `; the move itself costs ${money(move.minor)}` : '';
  return `Moved to ${labelOf(accountId)} it costs ${money(savedMinor)} less over ${years} years: ${money(path.totalMinor)} in place of ${money(stayMinor)}${first}.`;
}

/** How far a transfer has come. */
export const STAGE_WORDS: Readonly<Record<MoveStage, string>> = {
  planned: 'planned',
  checked: 'may be moved',
  'zone copied': 'zone looked at',
  funded: 'can be paid for',
  'auto-renew off': 'auto-renew off',
  unlocked: 'lock off',
  'code held': 'code held',
  requested: 'requested',
  pending: 'pending at the registry',
  approved: 'approved',
  arrived: 'arrived',
  'looked after': 'arrived, looked after',
  closed: 'moved',
  'going back': 'going back',
  'credit awaited': 'back; its price is awaited',
  'given up': 'not moved',
};
