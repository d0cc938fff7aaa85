import type { Phase } from '../lifecycle';
import type { Instant, TermEnd } from '../time';
import { judgeTerm, type TermVerdict } from './provisional';
import { isRedaction, type RegistrationRecord } from './record';
import { phaseOfStatuses } from './statuses';

/** What may differ between the ledger and the record, the most dangerous first: what does not work now comes before what may be lost. */
export const DIFFERENCE_KINDS = [
  'hold',
  'security broken',
  'not registered',
  'in redemption',
  'not at that registrar',
  'holder changed',
  'transfer pending',
  'not deleted',
  'term end',
  'unlocked',
  'name servers',
  'privacy off',
] as const;
export type DifferenceKind = (typeof DIFFERENCE_KINDS)[number];

/** How dangerous a difference is, the worst first. */
export const DANGER_BANDS = ['does not work', 'may be lost', 'term', 'open'] as const;
export type DangerBand = (typeof DANGER_BANDS)[number];

const BAND_OF: Readonly<Record<DifferenceKind, DangerBand>> = {
  hold: 'does not work',
  'security broken': 'does not work',
  'not registered': 'may be lost',
  'in redemption': 'may be lost',
  'not at that registrar': 'may be lost',
  'holder changed': 'may be lost',
  'transfer pending': 'may be lost',
  'not deleted': 'term',
  'term end': 'term',
  unlocked: 'open',
  'name servers': 'open',
  'privacy off': 'open',
};

/** In which band of danger a difference stands. */
export function dangerBandOf(kind: DifferenceKind): DangerBand {
  return BAND_OF[kind];
}

/** One difference, with what each side says. `fingerprint` changes when the record's side does. */
export interface Difference {
  readonly kind: DifferenceKind;
  readonly ledger: string;
  readonly record: string;
  readonly fingerprint: string;
  readonly term: TermVerdict | null;
}

/** A name as the ledger has it, as far as records can confirm it. */
export interface LedgerSide {
  readonly registrar: string;
  readonly termEnd: TermEnd | null;
  readonly phase: Phase | null;
  readonly lock: boolean | null;
  readonly privacy: boolean | null;
  readonly nameServers: readonly string[];
  /** The holder in the last record that showed one. */
  readonly holder: string | null;
  /** The term end that the account's answer gave last, after the term had ended; `null` without one. */
  readonly accountEnd: TermEnd | null;
  readonly receipt: boolean;
  /** When the newest record was last seen to say what it says. */
  readonly seenAt: Instant;
  /** The late window of the ending, in days. */
  readonly graceDays: number;
  /** When the ledger itself last renewed or restored the name: an older record has not seen it. `null` when it never did. */
  readonly actedAt: Instant | null;
}

const DELETED: ReadonlySet<Phase> = new Set(['redemption', 'pending restore', 'pending delete', 'available']);

const LEGAL_FORMS = new Set('inc llc ltd limited bv gmbh eg co corp plc sa ag'.split(' '));

/** The words of a name in any script, legal forms aside: compatibility forms made one, case folded (UAX #15; Unicode section 3.13). */
function wordsOf(name: string): string[] {
  const folded = name.normalize('NFKC').toUpperCase().toLowerCase().normalize('NFKC');
  return (folded.match(/[\p{L}\p{M}\p{N}]+/gu) ?? []).filter((word) => !LEGAL_FORMS.has(word));
}

const plain = (name: string) => wordsOf(name).join('');

/** True when two names of registrars mean the same: the words of one begin the other, legal forms aside. */
export function sameRegistrar(one: string, other: string): boolean {
  const [a, b] = [wordsOf(one), wordsOf(other)];
  const [short, long] = a.length <= b.length ? [a, b] : [b, a];
  if (short.length === 0) return false;
  return short.every((word, i) => word === long[i]) || a.join('') === b.join('');
}

/** The holder's name in a record, or `null` where it is held back. Redaction that comes or goes is no change of holder. */
export function holderOf(record: RegistrationRecord | null): string | null {
  const holder = record?.holder;
  if (!holder || holder.redacted) return null;
  const name = holder.organisation ?? holder.name;
  return isRedaction(name) ? null : name;
}

/** The differences between a name and its records, ranked by danger. */
export function compareRecords(
  side: LedgerSide,
  registry: RegistrationRecord | null,
  registrar: RegistrationRecord | null,
): Difference[] {
  const record = registry ?? registrar;
  if (record === null) return [];
  const found: Difference[] = [];
  const add = (kind: DifferenceKind, ledger: string, said: string, term: TermVerdict | null = null) =>
    found.push({ kind, ledger, record: said, fingerprint: `${kind}: ${said}`, term });
  // A record from before the ledger's own last act knows nothing of it.
  const isCurrent = side.actedAt === null || side.seenAt >= side.actedAt;
  if (!record.found) {
    if (side.phase !== 'available' && isCurrent) add('not registered', side.phase ?? 'registered', 'not registered');
    return found;
  }
  const phase = phaseOfStatuses(record.statuses);
  const gone = phase === 'redemption' || phase === 'pending delete' || phase === 'pending restore';
  const ledgerGone = side.phase !== null && DELETED.has(side.phase);
  if (isCurrent && gone && side.phase !== phase && side.phase !== null) add('in redemption', side.phase, phase);
  if (isCurrent && !gone && ledgerGone) add('not deleted', side.phase ?? '', 'registered');
  if (side.registrar !== '' && record.registrar !== null && !sameRegistrar(side.registrar, record.registrar))
    add('not at that registrar', side.registrar, record.registrar);
  const holder = holderOf(registrar) ?? holderOf(registry);
  if (side.holder !== null && holder !== null && plain(side.holder) !== plain(holder))
    add('holder changed', side.holder, holder);
  if (record.statuses.includes('pendingTransfer') && side.phase !== 'pending transfer')
    add('transfer pending', 'no transfer', 'a transfer is pending');
  const term = judgeTerm({
    ledger: side.termEnd,
    registry: record.expires,
    statuses: record.statuses,
    registrar: registrar?.registrarExpires ?? registry?.registrarExpires ?? null,
    account: side.accountEnd,
    receipt: side.receipt,
    seenAt: side.seenAt,
    graceDays: side.graceDays,
  });
  if (isCurrent && !gone && term.kind !== 'agrees' && term.kind !== 'unknown')
    add('term end', termText(side.termEnd), termText(record.expires), term);
  const hold = record.statuses.filter((status) => status === 'clientHold' || status === 'serverHold');
  if (hold.length > 0) add('hold', 'works', hold.join(', '));
  const locked = record.statuses.some((s) => s === 'clientTransferProhibited' || s === 'serverTransferProhibited');
  if (side.lock === true && !locked && !gone) add('unlocked', 'locked', 'not locked');
  if (record.delegation === 'broken')
    add('security broken', '', 'the name servers show no key that the registry’s signer vouches for');
  else if (record.signed === true && record.ds.length === 0 && record.delegation !== 'stands')
    add('security broken', '', 'signed, without a delegation signer');
  if (side.nameServers.length > 0 && record.nameServers.length > 0) {
    const [own, said] = [hosts(side.nameServers), hosts(record.nameServers)];
    if (own !== said) add('name servers', own, said);
  }
  if (side.privacy === true && holder !== null) add('privacy off', 'holder hidden', `holder shown: ${holder}`);
  return found.sort((a, b) => DIFFERENCE_KINDS.indexOf(a.kind) - DIFFERENCE_KINDS.indexOf(b.kind));
}

const hosts = (list: readonly string[]) =>
  [...new Set(list.map((host) => host.toLowerCase().replace(/\.$/, '')))].sort().join(' ');
const termText = (end: TermEnd | null) => (end === null ? 'not known' : new Date(end.at).toISOString().slice(0, 10));
