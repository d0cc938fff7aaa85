import type { Logger } from 'pino';
import { httpMarketplace } from '@/connectors/marketplace/httpMarketplace';
import type { MarketplaceAddress, MarketplaceLink } from '@/connectors/marketplace/port';
import { eppLink } from '@/connectors/registrar/eppLink';
import type { LinkAddress, RegistrarLink } from '@/connectors/registrar/port';
import type { Asker } from '@/core/people';
import { type Instant, parseInstant } from '@/core/time';
import type { MadeBy } from '@/database/changes';
import { type Database, openDatabase } from '@/database/pool';
import type { BeingAnswered } from './beingAnswered';
import { askedBy, makeLog } from './log';
import { keyFrom, type SealKey } from './secrets/seal';
import type { Thread } from './thread';

/** What a command or query needs from the world. Tests hand in their own. */
export interface Deps extends Asker {
  readonly database: Database;
  /** A copy of it to read from; without one everything is read where it is written. */
  readonly reads?: Database | null;
  readonly clock: () => Instant;
  readonly log: Logger;
  /** How far this process's clock stands ahead of the machine's. */
  readonly time: { offsetMs: number };
  /** Seals the credentials of links. */
  readonly key: SealKey | null;
  /** Seals what the shop keeps; the shop has this one alone. */
  readonly shopKey?: SealKey | null;
  /** Opens a link to a registrar. */
  readonly connect: (address: LinkAddress) => RegistrarLink;
  /** Opens a link to a marketplace. */
  readonly marketplace: (address: MarketplaceAddress) => MarketplaceLink;
  /** Where long work is done; without it, here. */
  readonly thread?: Thread | null;
  /** This is such a thread: what follows from its work is seen to by whoever asked for it. */
  readonly isThread?: boolean;
  /** Who is being answered beside long work, where there may be somebody: they go first. */
  readonly others?: BeingAnswered;
  /** Whether what a command was asked upon is still so; without it a command is carried out whatever came between. */
  readonly still?: () => Promise<boolean>;
  /** The machine's own clock, for sign-ins; tests move it. */
  readonly machineClock?: () => Instant;
  /** Who is at work in this process; a person of the office unless it is said. */
  readonly by?: MadeBy;
  /** The links that are open, by account, each with the address it was opened for. */
  readonly links: Map<number, { readonly address: string; readonly link: RegistrarLink }>;
}

/** The clock of this process. `NAME_LEDGER_TODAY` (RFC 3339) holds it still, for pictures and tests. */
export function clockFrom(fixed: string | undefined): () => Instant {
  if (!fixed) return () => Date.now() as Instant;
  const at = parseInstant(fixed);
  if (at === null) throw new Error(`NAME_LEDGER_TODAY is not an RFC 3339 instant: ${fixed}`);
  return () => at;
}

const kept = globalThis as { nameLedgerDeps?: Deps };

/** What differs from one process of the program to another. */
interface Own {
  readonly part: string;
  readonly connections: number;
  readonly thread: Thread | null;
}

/**
 * The dependencies of this process: its database by `DATABASE_URL`, its clock, its log. Made once, by what the program begins with, which says
 * what is its `own`; throws where they are asked for before that.
 */
export function deps(own?: Own): Deps {
  if (!kept.nameLedgerDeps) {
    if (!own) throw new Error('the dependencies of this process have not been made yet');
    const url = process.env.DATABASE_URL;
    if (!url) throw new Error('DATABASE_URL is not set; start the program with bin/start');
    const log = makeLog(own.part);
    const database = openDatabase(url, (error) => log.error({ err: error }, 'a database connection broke'), {
      max: own.connections,
    });
    const copy = process.env.READ_DATABASE_URL;
    const reads = copy
      ? openDatabase(copy, (error) => log.error({ err: error }, 'a connection to the copy broke'), {
          max: own.connections,
        })
      : null;
    const time = { offsetMs: 0 };
    const base = clockFrom(process.env.NAME_LEDGER_TODAY);
    kept.nameLedgerDeps = {
      database,
      reads,
      log,
      time,
      clock: () => (base() + time.offsetMs) as Instant,
      key: keyFrom(process.env.NAME_LEDGER_KEY),
      shopKey: keyFrom(process.env.NAME_LEDGER_SHOP_KEY),
      connect: (address) => eppLink(address),
      marketplace: httpMarketplace,
      thread: own.thread,
      isThread: own.part === 'thread',
      by: own.part === 'jobs' ? 'program' : 'office',
      links: new Map(),
    };
  }
  const who = askedBy();
  return who === undefined ? kept.nameLedgerDeps : { ...kept.nameLedgerDeps, who };
}
