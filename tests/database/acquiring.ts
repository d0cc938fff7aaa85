import { RENEWAL } from '@/core/ledger/sampleLedger';
import { isRefusal } from '@/core/refusal';
import { addDays, instant } from '@/core/time';
import { transaction } from '@/database/pool';
import { upsertPrices } from '@/database/prices';
import { registerNames } from '@/usecases/acquiring/register';
import { reviewNames } from '@/usecases/acquiring/review';
import { shortlist, wantNames } from '@/usecases/acquiring/wanted';
import { pointRecordsAt } from '../../practice/scenario/links';
import { blankDomain } from '../../practice/world/domain';
import { TODAY } from './ledger';
import { type LinkedLedger, linkedLedger } from './practice';

const HOUR = 3_600_000;

/** A ledger whose one account sells .com and .net over its link; .org has records only, .uk WHOIS. */
export async function acquiringLedger(mostQuestionsASecond?: number): Promise<LinkedLedger> {
  const made = await linkedLedger(
    ['copperbuoy.com'],
    instant('2027-03-09T10:15:00Z'),
    {},
    'quaymark',
    mostQuestionsASecond,
  );
  const { ledger, accountId, practice } = made;
  await pointRecordsAt(ledger.database, practice.records);
  const price = { ...RENEWAL, accountId, currency: 'USD' };
  await transaction(ledger.database, (tx) =>
    upsertPrices(tx, [
      { ...price, action: 'register', yearMinor: 1138 },
      { ...price, ending: 'net', yearMinor: 1310 },
      { ...price, ending: 'net', action: 'register', yearMinor: 1310 },
    ]),
  );
  await ledger.database.query('update accounts set balance_minor = 18640, balance_at = now()');
  return made;
}

/** Somebody else's names. */
export function strangersHold({ world }: LinkedLedger, ...names: readonly string[]): void {
  for (const name of names)
    world.domains.set(name, {
      ...blankDomain(name, 'larkhythe', TODAY - 300 * 24 * HOUR, addDays(TODAY, 65)),
      owner: 'stranger',
      holder: 'Oda Fennimore',
    });
}

/** Puts names on the shortlist and agrees to what the review shows. Answers the run, or why there is none. */
export async function agreeTo(
  { ledger }: Pick<LinkedLedger, 'ledger'>,
  names: readonly string[],
  more: {
    readonly key?: string;
    readonly years?: number;
    readonly privacy?: boolean;
    readonly agreedMinor?: number;
  } = {},
) {
  const { key, agreedMinor, ...choice } = more;
  await wantNames(ledger, { names: names.map((name) => ({ name })) });
  const wanted = await shortlist(ledger);
  const choices = wanted.map(({ ascii }) => ({ ascii, ...choice }));
  const review = await reviewNames(ledger, { choices });
  if (isRefusal(review)) throw new Error(review.message);
  return registerNames(ledger, {
    ...(key === undefined ? {} : { key }),
    items: review.items.map(({ wanted, price, accountId, years }) => ({
      ascii: wanted.ascii,
      accountId,
      years,
      ...(choice.privacy === undefined ? {} : { privacy: choice.privacy }),
      agreedMinor: agreedMinor ?? price?.total.minor ?? 0,
    })),
  });
}
