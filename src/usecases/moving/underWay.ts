import {
  type MoveExit,
  type MoveLinks,
  type MoveStage,
  type MoveTurn,
  moveDueAt,
  OVER_MOVES,
  turnOfMove,
} from '@/core/moving';
import { addDays, type Instant } from '@/core/time';
import { selectAccounts } from '@/database/accounts';
import { selectDependents } from '@/database/names';
import {
  selectNamesUnderWay,
  selectOpenTransferOf,
  selectTransfersSince,
  type TransferRow,
} from '@/database/transfers';
import type { Deps } from '../deps';
import { sumsWithCode, type WithCode } from './expected';

/** A transfer as a screen shows it. Amounts: minor units of `currency`, the new account's. */
export interface TransferView {
  readonly id: number;
  readonly ascii: string;
  readonly unicode: string;
  /** Who put it on its way, by the name he had then. */
  readonly person: string | null;
  /** Labels of the accounts. */
  readonly from: string;
  readonly to: string;
  /** The sale by which it goes to its buyer. */
  readonly saleId: number | null;
  readonly links: MoveLinks;
  readonly stage: MoveStage;
  readonly exit: MoveExit | null;
  readonly turn: MoveTurn;
  readonly since: Instant;
  /** Until when this stage is over as a rule; `null` where nothing is waited for. */
  readonly dueAt: Instant | null;
  readonly isOverdue: boolean;
  readonly problem: string | null;
  readonly notBefore: Instant;
  readonly currency: string;
  /** What the new account’s price list said when it was begun. */
  readonly quotedMinor: number | null;
  readonly askedMinor: number | null;
  readonly chargedMinor: number | null;
  /** What the new registrar has given for the request. */
  readonly receipt: string | null;
  readonly nameId: number;
  readonly toId: number | null;
  /** What the old registrar offers for staying, a year, in its currency. */
  readonly counterMinor: number | null;
  readonly counterCurrency: string;
  readonly isCounterDeclined: boolean;
  /** What it costs with a code, where the new account’s price list knows of one, and it is requested there by hand. */
  readonly withCode: WithCode | null;
  /** The holder’s mail address has to be confirmed by then, as the registrar has told; `null` where it has not. */
  readonly confirmMailBy: Instant | null;
  /** Names of the ledger whose name servers lie under this one: these move with it (RFC 5731 section 3.2.4). */
  readonly dependents: readonly string[];
  readonly hasZone: boolean;
  readonly zoneNote: string;
}

/** For so long a transfer that is over is still shown. */
const SHOWN_DAYS = 30;

/** Every transfer under way, and those that were over lately; what waits longest first. */
export async function transfersUnderWay(deps: Deps): Promise<TransferView[]> {
  const at = deps.clock();
  const [rows, accounts] = await Promise.all([
    selectTransfersSince(deps.database, addDays(at, -SHOWN_DAYS)),
    selectAccounts(deps.database),
  ]);
  const byId = new Map(accounts.map((account) => [account.id, account]));
  const open = rows.flatMap(({ nameId, stage }) => (OVER_MOVES.includes(stage) ? [] : [nameId]));
  const dependents = await selectDependents(deps.database, open);
  const byHand = rows.filter(({ stage, toId }) => stage === 'code held' && toId !== null && !byId.get(toId)?.linked);
  const withCode = await sumsWithCode(deps, byHand);
  return rows.map((row) => viewOf(row, byId, at, { dependents, withCode }));
}

/** Names that are on their way already, or sold: none of them can be put on its way. */
export function namesUnderWay(deps: Deps): Promise<number[]> {
  return selectNamesUnderWay(deps.database);
}

/** The transfer that a name is on; `null` where it is on none. */
export async function transferOfName(deps: Deps, nameId: number): Promise<TransferView | null> {
  const row = await selectOpenTransferOf(deps.database, nameId);
  if (!row) return null;
  const accounts = new Map((await selectAccounts(deps.database)).map((account) => [account.id, account]));
  return viewOf(row, accounts, deps.clock());
}

/** One transfer, under way or lately over; `null` where there is none. */
export async function transferById(deps: Deps, id: number): Promise<TransferView | null> {
  return (await transfersUnderWay(deps)).find((one) => one.id === id) ?? null;
}

/** Those that wait for the person, or have waited longer than usual. */
export async function transfersWaiting(deps: Deps): Promise<TransferView[]> {
  return (await transfersUnderWay(deps)).filter(({ turn, isOverdue }) => turn === 'you' || isOverdue);
}

/** What is read of many transfers at once. */
interface More {
  readonly dependents?: ReadonlyMap<number, readonly string[]>;
  readonly withCode?: ReadonlyMap<number, WithCode>;
}

function viewOf(
  row: TransferRow,
  accounts: ReadonlyMap<
    number,
    { readonly label: string; readonly linked: boolean; readonly currency: string; readonly wantsZone?: boolean }
  >,
  at: Instant,
  more: More = {},
): TransferView {
  const from =
    row.fromId === null ? { label: row.cameFrom, linked: false, currency: row.currency } : accounts.get(row.fromId);
  const to =
    row.toId === null
      ? { label: row.buyerAccount ?? 'its buyer', linked: false, wantsZone: false }
      : accounts.get(row.toId);
  const links = { losing: from?.linked ?? false, gaining: to?.linked ?? false, wantsZone: to?.wantsZone ?? false };
  const { stage, since, actsBy, notBefore } = row;
  const isWaiting = stage === 'planned' && notBefore > at;
  const dueAt = isWaiting ? null : moveDueAt(stage, links, Math.max(since, notBefore) as Instant, actsBy);
  return {
    id: row.id,
    ascii: row.ascii,
    unicode: row.unicode,
    from: from?.label ?? '',
    to: to?.label ?? '',
    saleId: row.saleId,
    links,
    stage,
    exit: row.exit,
    turn: turnOfMove(stage, links, row.saleId !== null),
    since,
    dueAt,
    isOverdue: dueAt !== null && dueAt < at && !OVER_MOVES.includes(stage),
    problem: row.problem,
    notBefore,
    currency: row.currency,
    quotedMinor: row.quotedMinor,
    askedMinor: row.askedMinor,
    chargedMinor: row.chargedMinor,
    receipt: row.receipt,
    person: row.person,
    nameId: row.nameId,
    toId: row.toId,
    counterMinor: row.counterMinor,
    counterCurrency: from?.currency ?? row.currency,
    isCounterDeclined: row.isCounterDeclined,
    withCode: more.withCode?.get(row.id) ?? null,
    confirmMailBy: row.confirmMailBy,
    dependents: more.dependents?.get(row.nameId) ?? [],
    hasZone: row.hasZone,
    zoneNote: row.zoneNote,
  };
}
