import { ITEM_STATES } from '@/core/orders';
import type { HolderAddress } from '@/usecases/acquiring/addresses';
import type { ApproachLine, ApproachRow } from '@/usecases/acquiring/approaches';
import type { CandidateDetail, Neighbour } from '@/usecases/acquiring/detail';
import type { AskingProgress, IdeaSetRow } from '@/usecases/acquiring/ideas';
import type { RegistrationRow, registrations } from '@/usecases/acquiring/register';
import type { ReleaseOrderRow } from '@/usecases/acquiring/releaseOrders';
import type { Review } from '@/usecases/acquiring/review';
import type { UseSeen } from '@/usecases/acquiring/use';
import type { WantedRow } from '@/usecases/acquiring/wanted';
import {
  amountOf,
  documentOf,
  from,
  instant,
  type Kind,
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

export const ideaSet = named(
  'IdeaSet',
  documentOf<IdeaSetRow>()({
    id: whole,
    label: text,
    ideas: text,
    patterns: list(text),
    endings: list(text),
    heldYears: whole,
    madeAt: instant,
    paused: yesNo,
  }),
);

export const asking = named(
  'AskingProgress',
  documentOf<AskingProgress>()({ waiting: whole, records: whole, next: orNull(instant) }),
);

export const wanted = named(
  'WantedName',
  documentOf<WantedRow>()({
    name: from(({ ascii }: WantedRow) => ascii, text),
    unicode: text,
    purpose: text,
    note: text,
    addedAt: instant,
  }),
);

type ReviewItem = Review['items'][number];

type ReviewAccount = Review['accounts'][number];

const reviewed = documentOf<ReviewItem>()({
  name: from(({ wanted: { ascii } }: ReviewItem) => ascii, text),
  outcome: from(({ kind }: ReviewItem) => kind as string, text),
  problem: text,
  accountId: orNull(whole),
  years: whole,
  autoRenew: yesNo,
  privacy: yesNo,
  price: from(({ price }: ReviewItem) => price?.total, orNull(money)),
  priceBy: from(({ price }: ReviewItem) => price?.by, orNull(oneOf('link', 'list'))),
  renewal: from(({ price }: ReviewItem) => price?.renewal, orNull(money)),
  newEnd: instant,
  refundUntil: orNull(instant),
  holder: orNull(text),
});

const reviewRests = ({ items, accounts }: Review): Ground[] => [
  ...(items.some(({ price }) => price?.by === 'link') ? [{ what: 'live prices of registrars', asOf: null }] : []),
  ...(items.some(({ price }) => price?.by === 'list') ? [{ what: 'price lists', asOf: null }] : []),
  ...(accounts.some(({ balance }) => balance !== null)
    ? [{ what: 'balances as the ledger has them', asOf: null }]
    : []),
];

export const review = named(
  'RegistrationReview',
  documentOf<Review>()({
    items: list(reviewed),
    accounts: list(
      documentOf<ReviewAccount>()({
        id: whole,
        label: text,
        linked: yesNo,
        totals: list(money),
        balance: orNull(money),
        after: orNull(money),
      }),
    ),
    homeTotal: orNull(money),
    restsOn: from(reviewRests, grounds),
  }),
);

export const registration = named(
  'Registration',
  documentOf<RegistrationRow>()({
    id: whole,
    runId: text,
    name: from(({ ascii }: RegistrationRow) => ascii, text),
    accountId: whole,
    years: whole,
    state: oneOf(...ITEM_STATES),
    since: instant,
    attempts: whole,
    quoted: amountOf(({ quotedMinor: minor, currency }: RegistrationRow) => ({ minor, currency })),
    charged: amountOf(({ chargedMinor: minor, currency }: RegistrationRow) => ({ minor, currency })),
    byHand: yesNo,
    receipt: orNull(text),
    registeredAt: orNull(instant),
    newEnd: orNull(instant),
    problem: orNull(text),
  }),
);

export type Registrations = Awaited<ReturnType<typeof registrations>>;

export const address = named(
  'HolderAddress',
  documentOf<HolderAddress>()({
    accountId: whole,
    address: text,
    askedAt: orNull(instant),
    confirmedAt: orNull(instant),
    evidence: text,
    names: list(text),
  }),
);

export const approach = named(
  'Approach',
  documentOf<ApproachRow>()({
    id: whole,
    name: from(({ ascii }: ApproachRow) => ascii, text),
    holder: text,
    contact: text,
    state: from(({ state }: ApproachRow) => state as string, text),
    since: instant,
    answerBy: orNull(instant),
    limit: amountOf(({ limitMinor: minor, currency }: ApproachRow) => ({ minor, currency })),
    agreed: amountOf(({ agreedMinor: minor, currency }: ApproachRow) => ({ minor, currency })),
    note: text,
    lines: list(
      documentOf<ApproachLine>()({ at: instant, isOurs: yesNo, byMail: yesNo, text, sentAt: orNull(instant) }),
    ),
  }),
);

export const releaseOrder = named(
  'ReleaseOrder',
  documentOf<ReleaseOrderRow>()({
    id: whole,
    name: from(({ ascii }: ReleaseOrderRow) => ascii, text),
    accountIds: list(whole),
    years: whole,
    mostFirst: amountOf(({ mostFirstMinor: minor, currency }: ReleaseOrderRow) => ({ minor, currency })),
    mostRenewal: amountOf(({ mostRenewalMinor: minor, currency }: ReleaseOrderRow) => ({ minor, currency })),
    from: from(({ fromAt }: ReleaseOrderRow) => fromAt, instant),
    until: from(({ untilAt }: ReleaseOrderRow) => untilAt, instant),
    state: from(({ state }: ReleaseOrderRow) => state as string, text),
    since: instant,
    problem: orNull(text),
    note: text,
  }),
);

export const use = named(
  'UseSeen',
  documentOf<UseSeen>()({
    name: from(({ ascii }: UseSeen) => ascii, text),
    lookedAt: instant,
    hasNameServers: orNull(yesNo),
    site: orNull(text),
    takesMail: orNull(yesNo),
  }),
);

/** JSON that the thread has written already. */
export const written: Kind<Uint8Array> = {
  schema: { type: 'object', description: 'Columns of outcomes and prices: one letter for each name and ending.' },
  write: (bytes) => JSON.parse(new TextDecoder().decode(bytes)),
};

export const candidate = named(
  'Candidate',
  documentOf<CandidateDetail>()({
    name: from(({ ascii }: CandidateDetail) => ascii, text),
    unicode: text,
    ending: text,
    outcome: from(({ answer }: CandidateDetail) => answer?.kind as string | undefined, orNull(text)),
    askedAt: from(({ answer }: CandidateDetail) => answer?.askedAt, orNull(instant)),
    holder: from(({ takenBy }: CandidateDetail) => takenBy?.holder, orNull(text)),
    expires: from(({ takenBy }: CandidateDetail) => takenBy?.expires, orNull(termEnd)),
    isWatched: yesNo,
    spelling: from(({ spelling }: CandidateDetail) => spelling.letters, list(text)),
    near: list(
      documentOf<Neighbour>()({
        name: from(({ ascii }: Neighbour) => ascii, text),
        outcome: from(({ kind }: Neighbour) => kind as string, text),
        holder: orNull(text),
      }),
    ),
    nearNotAsked: whole,
  }),
);
