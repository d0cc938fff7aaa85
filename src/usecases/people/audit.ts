import { createHash } from 'node:crypto';
import { isMember, type Who } from '@/core/people';
import { membersInOrder } from '@/core/text/membersInOrder';
import { formatInstant, parseInstant } from '@/core/time';
import { type AuditLine, everyLine, insertLine, lastLine, selectLines } from '@/database/audit';
import { type Transaction, transaction } from '@/database/pool';
import type { Deps } from '../deps';
import { machineNow } from './machineNow';

export type { AuditLine } from '@/database/audit';

/** What stands before the first line. */
const BEGINNING = Buffer.alloc(32);
const MOST_TEXT = 200;
const MOST_LISTED = 20;
/** Members that may hold what nobody but its owner should read. */
const SECRET = /pass|secret|code|token|phrase|key|credential|challenge|content|login/i;

/** The hash of a line: SHA-256 over all that it says and the hash of the one before it. */
export function hashOfLine(line: Omit<AuditLine, 'hash'>): Buffer {
  const said = [
    line.id,
    formatInstant(line.at),
    line.who,
    line.action,
    membersInOrder(line.detail),
    line.beforeHash.toString('hex'),
  ];
  return createHash('sha256').update(JSON.stringify(said)).digest();
}

/** Who stands in a line. */
export function writtenWho(who: Who | undefined): string {
  if (isMember(who)) return who.name;
  return who?.kind ?? 'office';
}

/** Adds a line, chained to the one before it. */
export async function noteIn(
  tx: Transaction,
  deps: Pick<Deps, 'who' | 'machineClock'>,
  action: string,
  detail: Readonly<Record<string, unknown>> = {},
): Promise<void> {
  const last = await lastLine(tx);
  const line = {
    id: (last?.id ?? 0) + 1,
    at: machineNow(deps),
    who: writtenWho(deps.who),
    action,
    detail: membersInOrder(JSON.parse(JSON.stringify(detail))),
    beforeHash: last?.hash ?? BEGINNING,
  };
  await insertLine(tx, { ...line, hash: hashOfLine(line) });
}

/** The same in a transaction of its own. */
export function note(
  deps: Pick<Deps, 'database' | 'who' | 'machineClock'>,
  action: string,
  detail: Readonly<Record<string, unknown>> = {},
): Promise<void> {
  return transaction(deps.database, (tx) => noteIn(tx, deps, action, detail));
}

/** What a command was asked with, as far as it may stand in the audit: no secrets, no files, nothing without end. */
export function auditable(value: unknown, depth = 0): unknown {
  // A mail, a zone, a list: what stands in it is for whoever reads it there.
  if (typeof value === 'string' && /[\r\n]/.test(value)) return '…';
  if (typeof value === 'string') return value.length > MOST_TEXT ? `${value.slice(0, MOST_TEXT)}…` : value;
  if (typeof value !== 'object' || value === null) return typeof value === 'function' ? null : (value ?? null);
  if (depth > 5 || value instanceof Uint8Array || Symbol.asyncIterator in value) return '…';
  if (Array.isArray(value)) {
    const listed = value.slice(0, MOST_LISTED).map((one) => auditable(one, depth + 1));
    return value.length > MOST_LISTED ? [...listed, `and ${value.length - MOST_LISTED} more`] : listed;
  }
  return Object.fromEntries(
    Object.entries(value).map(([key, member]) => [key, SECRET.test(key) ? '…' : auditable(member, depth + 1)]),
  );
}

/** What a look at the whole chain has found. */
export interface ChainLooked {
  readonly lines: number;
  /** The hash of the last line: noted elsewhere, it shows whether lines were cut off at the end. */
  readonly head: string;
  /** The first line that does not follow from the one before it; `null` where all do. */
  readonly brokenAt: number | null;
}

/** Goes through the whole audit: every line follows the one before it, and says what it said when it was written. */
export function verifyAudit({ database }: Pick<Deps, 'database'>): Promise<ChainLooked> {
  return verifyLines(everyLine(database));
}

/** Lines of a file that was exported, as they are chained; a line that is none stands for one that does not follow. */
export async function* exportedLines(file: AsyncIterable<string>): AsyncGenerator<AuditLine[]> {
  for await (const text of file) {
    if (text.trim() === '') continue;
    const line = JSON.parse(text) as Record<string, unknown>;
    yield [
      {
        id: Number(line.id),
        at: (parseInstant(String(line.at)) ?? 0) as AuditLine['at'],
        who: String(line.who),
        action: String(line.action),
        detail: line.detail,
        beforeHash: Buffer.from(String(line.beforeHash), 'hex'),
        hash: Buffer.from(String(line.hash), 'hex'),
      },
    ];
  }
}

/** The same for lines from wherever. */
export async function verifyLines(groups: AsyncIterable<readonly AuditLine[]>): Promise<ChainLooked> {
  let before: Buffer = BEGINNING;
  let lines = 0;
  for await (const group of groups)
    for (const line of group) {
      lines += 1;
      const follows = line.id === lines && line.beforeHash.equals(before) && hashOfLine(line).equals(line.hash);
      if (!follows) return { lines, head: before.toString('hex'), brokenAt: lines };
      before = line.hash;
    }
  return { lines, head: before.toString('hex'), brokenAt: null };
}

/** A line as it is told. */
export interface AuditTold {
  readonly id: number;
  readonly at: AuditLine['at'];
  readonly who: string;
  readonly action: string;
  readonly detail: unknown;
  readonly hash: string;
}

const told = ({ id, at, who, action, detail, hash }: AuditLine): AuditTold => ({
  id,
  at,
  who,
  action,
  detail,
  hash: hash.toString('hex'),
});

/** The newest lines before a number. */
export async function auditPage(
  { database }: Pick<Deps, 'database'>,
  before: number,
  limit: number,
): Promise<AuditTold[]> {
  return (await selectLines(database, before, limit)).map(told);
}

/** The whole audit as lines of JSON, oldest first, each with its hash: who has it can verify it without us. */
export async function* auditExport({ database }: Pick<Deps, 'database'>): AsyncGenerator<string> {
  for await (const group of everyLine(database))
    yield group
      .map((line) => {
        const { at, hash, ...rest } = told(line);
        return `${JSON.stringify({ ...rest, at: formatInstant(at), beforeHash: line.beforeHash.toString('hex'), hash })}\n`;
      })
      .join('');
}
