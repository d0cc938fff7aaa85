import type { MoveExit, MoveTurn } from '@/core/moving';
import { formatAmount } from '@/ui/text/figures';
import type { TransferView } from '@/usecases/moving/underWay';

export const EXIT_WORDS: Readonly<Record<MoveExit, string>> = {
  refused: 'the new registrar refused it',
  'wrong code': 'the code was wrong',
  rejected: 'the losing side rejected it',
  cancelled: 'it was cancelled',
  'timed out': 'it would not have arrived in time, or nobody answered',
  stopped: 'stopped',
};

/** The groups of the screen, by whose turn it is. */
export const TURN_WORDS: Readonly<Record<MoveTurn, string>> = {
  you: 'Your turn',
  buyer: 'The buyer’s turn',
  program: 'Goes on by itself',
  registry: 'At the registry',
  registrar: 'Its price has to come back',
  holder: 'The holder’s mail',
  nobody: 'Over in the last 30 days',
};

/** What a person has to do next, or may see, and where; `null` where nothing is to be told. */
export function todoWords({
  stage,
  turn,
  from,
  to,
  links,
}: Pick<TransferView, 'stage' | 'turn' | 'from' | 'to' | 'links'>): string | null {
  if (stage === 'credit awaited') return `Say when its price has come back from ${to}.`;
  if (!links.gaining && (stage === 'pending' || stage === 'approved')) return `Look at ${to} whether it has arrived.`;
  if (turn !== 'you') return null;
  switch (stage) {
    case 'checked':
      return `Load its zone at ${to}, and look there whether it answers.`;
    case 'funded':
      return `Switch auto-renew off at ${from}.`;
    case 'auto-renew off':
      return `Take the lock off at ${from}.`;
    case 'unlocked':
      return links.gaining
        ? `Have ${from} give the transfer code, and write it here.`
        : `Give ${to} the holder’s data that it asks for; then have ${from} give the transfer code, and write it here.`;
    case 'code held':
      return `Request the transfer at ${to} with the code.`;
    case 'arrived':
      return `Put the lock on at ${to}, and auto-renew and privacy as they were; look at its name servers, site and mail.`;
    case 'going back':
      return `Put it back as it was at ${from}: lock on, auto-renew as before, the code changed.`;
    default:
      return null;
  }
}

/** What is expected to be charged, with a code and without. */
export function sumWords({
  quotedMinor,
  withCode,
  currency,
}: Pick<TransferView, 'quotedMinor' | 'withCode' | 'currency'>): string {
  if (quotedMinor === null) return 'no price list says what it costs';
  const money = (minor: number) => formatAmount({ minor, currency });
  const listed = `${money(quotedMinor)} by its price list`;
  return withCode === null
    ? `${listed}, which knows of no code`
    : `${listed}, ${money(withCode.minor)} with the code ${withCode.code}`;
}
