import type { AutoRenewSetting } from '../funding';
import { addDays, type Instant } from '../time';

const BEFORE = ['planned', 'checked', 'zone copied', 'funded', 'auto-renew off', 'unlocked', 'code held'] as const;
const UNDER_WAY = ['requested', 'pending', 'approved'] as const;
const AT_THE_END = ['arrived', 'looked after', 'closed'] as const;
const BACK = ['going back', 'credit awaited', 'given up'] as const;

/**
 * How far a transfer has come: each stage is written before the next is begun. `requested`: the request may have been sent. `approved`:
 * the losing side has said yes, or the registry has. `arrived`: it is at the new account, and has to be looked after. `looked after`:
 * only the holder’s mail is still to be confirmed. `going back`: it came to nothing, and the name is put back as it was. `credit
 * awaited`: it is as it was, and what was paid has to come back.
 */
export const MOVE_STAGES = [...BEFORE, ...UNDER_WAY, ...AT_THE_END, ...BACK] as const;
export type MoveStage = (typeof MOVE_STAGES)[number];

/** Why a transfer came to nothing. */
export const MOVE_EXITS = ['refused', 'wrong code', 'rejected', 'cancelled', 'timed out', 'stopped'] as const;
export type MoveExit = (typeof MOVE_EXITS)[number];

/** Nothing more happens: the name may be moved again. */
export const OVER_MOVES: readonly MoveStage[] = ['closed', 'given up'];

/** The name is still where it was, and nothing has been asked for: it can be left at any moment. */
export const BEFORE_REQUEST: readonly MoveStage[] = BEFORE;

/** The request may be under way at the registry. */
export const MAY_BE_UNDER_WAY: readonly MoveStage[] = UNDER_WAY;

/** The stages that a transfer passes on its way once it is begun, in their order. */
export const MOVE_WAY: readonly MoveStage[] = [...BEFORE.slice(1), ...UNDER_WAY, ...AT_THE_END];

/**
 * What auto-renew is set to where a name is put back, or has arrived: as before. What nobody knew is set on: a year too many costs its
 * price, a name that lapses is lost.
 */
export function autoAsBefore(setting: AutoRenewSetting): 'on' | 'off' {
  return setting === 'off' ? 'off' : 'on';
}

/** Where a name stands that has been put back: what was paid for its transfer has to come back, where anything was. Minor units. */
export function stageOnceBack(chargedMinor: number | null): 'credit awaited' | 'given up' {
  return chargedMinor === null || chargedMinor === 0 ? 'given up' : 'credit awaited';
}

/** Who has to act: the program over a link, the person, the buyer of a sold name, the registry or the losing side, the holder, or nobody. */
export type MoveTurn = 'program' | 'you' | 'buyer' | 'registry' | 'holder' | 'registrar' | 'nobody';

/** Which of the two accounts have a link. */
export interface MoveLinks {
  readonly losing: boolean;
  readonly gaining: boolean;
  /** The new registrar wants the zone to be there first: nobody but a person can load it. */
  readonly wantsZone?: boolean;
}

/** What is to be done next is done at the old account, or at the new one: by hand where it has no link. */
export const AT_THE_OLD_ACCOUNT: readonly MoveStage[] = ['funded', 'auto-renew off', 'unlocked', 'going back'];
export const AT_THE_NEW_ACCOUNT: readonly MoveStage[] = ['code held', 'arrived'];

/** Whose turn it is. What needs the old account is done there by hand where it has no link; so is what needs the new one. */
export function turnOfMove(stage: MoveStage, { losing, gaining, wantsZone }: MoveLinks, isSold = false): MoveTurn {
  if (stage === 'checked' && wantsZone) return 'you';
  if (isSold && stage === 'code held') return 'buyer';
  if (AT_THE_OLD_ACCOUNT.includes(stage)) return losing ? 'program' : 'you';
  if (AT_THE_NEW_ACCOUNT.includes(stage)) return gaining ? 'program' : 'you';
  switch (stage) {
    case 'planned':
    case 'checked':
    case 'zone copied':
    case 'requested':
      return 'program';
    case 'pending':
      return losing ? 'program' : 'registry';
    case 'approved':
      return gaining || losing ? 'program' : 'registry';
    case 'looked after':
      return 'holder';
    case 'credit awaited':
      return 'registrar';
    default:
      return 'nobody';
  }
}

/** Days that a stage takes at most as a rule: common practice, no source. Five for what nobody answers: RFC 5731 section 3.2.4. */
const USUAL_DAYS: Readonly<Record<MoveTurn, number>> = {
  program: 1,
  you: 2,
  buyer: 7,
  registry: 7,
  registrar: 10,
  holder: 15,
  nobody: Number.POSITIVE_INFINITY,
};

/** Until when a stage should be over; `null` where nothing is waited for. `actsBy` is when the registry acts by itself. */
export function moveDueAt(stage: MoveStage, links: MoveLinks, since: Instant, actsBy: Instant | null): Instant | null {
  if (stage === 'pending' && actsBy !== null) return addDays(actsBy, 1);
  const days = USUAL_DAYS[turnOfMove(stage, links)];
  return Number.isFinite(days) ? addDays(since, days) : null;
}

/** What is remembered of a transfer before another is asked for: who asked, and when. */
export interface TransferMark {
  readonly requestedBy: string;
  readonly requestedAt: Instant;
}

/** What is seen of a name after a request that may or may not have arrived. */
export interface TransferSeen {
  /** It is at our new login already. */
  readonly isOurs: boolean;
  /** Its last transfer, whoever asked; `null` where the registry knows of none. */
  readonly transfer: (TransferMark & { readonly status: string }) | null;
}

/** What follows from it. */
export type RequestVerdict =
  | 'arrived'
  | 'pending'
  | 'approved'
  | 'rejected'
  | 'cancelled'
  | 'timed out'
  | 'send'
  | 'foreign';

/**
 * What a look says of a request that may have been sent (guarded resend): it is sent again only where nothing has changed since before it.
 * Source: RFC 5731 section 3.2.4, its states.
 */
export function judgeRequest(seen: TransferSeen, before: TransferMark | null, login: string): RequestVerdict {
  if (seen.isOurs) return 'arrived';
  const { transfer } = seen;
  if (transfer === null) return 'send';
  const isAsBefore =
    before !== null && before.requestedBy === transfer.requestedBy && before.requestedAt === transfer.requestedAt;
  if (transfer.status === 'pending') return transfer.requestedBy === login ? 'pending' : 'foreign';
  if (isAsBefore) return 'send';
  // Somebody else’s transfer that is over since says nothing of ours: it was never taken.
  if (transfer.requestedBy !== login) return transfer.status.endsWith('Approved') ? 'foreign' : 'send';
  return endOf(transfer.status) ?? 'send';
}

/** How a transfer ended, by its state; `null` while it has not. */
export function endOf(status: string): 'approved' | 'rejected' | 'cancelled' | 'timed out' | null {
  switch (status) {
    case 'clientApproved':
    case 'serverApproved':
      return 'approved';
    case 'clientRejected':
      return 'rejected';
    case 'clientCancelled':
      return 'cancelled';
    case 'serverCancelled':
      return 'timed out';
    default:
      return null;
  }
}

/**
 * The last instant at which a transfer can still be turned back so that the old account keeps the name by itself: its charge, less what
 * switching auto-renew on takes there. Where auto-renew was off: the end of the term.
 */
export function turnBackBy(oldEnd: Instant, wasOn: boolean, leadDays: number, switchHours: number): Instant {
  return wasOn ? ((addDays(oldEnd, -leadDays) - switchHours * 3_600_000) as Instant) : oldEnd;
}
