import type { Difference } from '@/core/records';
import { formatDay, parseDay } from '@/core/time';

const ALIVE: ReadonlySet<string> = new Set(['term', 'refundable', 'late', 'pending transfer']);

/** What a difference means, in a sentence. */
export function differenceWords({ kind, ledger, record, term }: Difference): string {
  switch (kind) {
    case 'not registered':
      return 'It is not registered at all: anyone could take it.';
    case 'in redemption':
      return ALIVE.has(ledger)
        ? `The registry has it in ${record}, though the ledger says that it is paid.`
        : `The registry has it in ${record}; the ledger has it as ${ledger}.`;
    case 'not deleted':
      return `It is still registered, though by the ledger’s rules it should be ${ledger} by now.`;
    case 'not at that registrar':
      return `It is at ${record}, not at ${ledger}.`;
    case 'holder changed':
      return `The holder is ${record} now, not ${ledger}.`;
    case 'transfer pending':
      return 'A transfer is pending that the ledger knows nothing of.';
    case 'term end':
      return termWords(inWords(ledger), inWords(record), term);
    case 'hold':
      return `It is on hold (${record}): site and mail do not work.`;
    case 'unlocked':
      return 'The transfer lock is off.';
    case 'security broken':
      return 'It is marked as signed, without a delegation signer.';
    case 'name servers':
      return `The name servers are ${record}, not ${ledger}.`;
    case 'privacy off':
      return `Privacy is off: the record shows ${record.replace('holder shown: ', '')}.`;
  }
}

/** A day as it is written everywhere; other words as they are. */
export function inWords(said: string): string {
  const day = parseDay(said);
  return day === null ? said : formatDay(day);
}

function termWords(ledger: string, record: string, term: Difference['term']): string {
  switch (term?.kind) {
    case 'renewed':
      return `Renewed: the year until ${record} is confirmed by the ${term.by}.`;
    case 'not renewed':
      return `Not renewed: the registry shows ${record} only for now; the ${term.by} says ${ledger}.`;
    case 'undetermined':
      return `The registry shows ${record}, whether or not anyone paid. If nobody did, the ledger’s deadlines hold.`;
    case 'record later':
      return `The record says ${record}, ${term.days} days later than the ledger.`;
    case 'record earlier':
      return `The record says ${record}, ${term.days} days earlier than the ledger.`;
    default:
      return `The record says ${record}, the ledger ${ledger}.`;
  }
}

/** Differences that a person has to look at: nothing is taken over by itself. */
export function canTakeOver({ kind, term }: Difference): boolean {
  if (kind === 'hold' || kind === 'security broken') return false;
  return !(kind === 'term end' && (term?.kind === 'undetermined' || term?.kind === 'not renewed'));
}
