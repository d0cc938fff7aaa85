import { type Amount, type NumberStyle, readAmount, SIGN_PATTERN } from '../money';
import { parseDomainName } from '../names';
import { isRefusal } from '../refusal';
import { readDate, type TermEnd } from '../time';
import { kindsIn, type NewsKind } from './words';

/** A mail as it is read for news. */
export interface Told {
  readonly from: string;
  readonly subject: string;
  readonly text: string;
  /** What the server that took it in found: `dkim=pass`. */
  readonly signatures?: readonly string[];
  /** A person has pasted it, and believes it. */
  readonly isPasted?: boolean;
}

/** What the ledger knows that a mail may speak of. */
export interface KnownToNews {
  /** The number and account of a name of the ledger, by A-label. */
  readonly names: ReadonlyMap<string, { readonly id: number; readonly accountId: number }>;
  readonly accounts: readonly {
    readonly id: number;
    readonly label: string;
    readonly registrar: string;
    readonly currency: string;
    /** The host of its link. */
    readonly host: string | null;
  }[];
  readonly style: NumberStyle;
}

/** What is said of one name. `null` where nothing is, or more than one thing. */
export interface NewsOfName {
  readonly ascii: string;
  readonly nameId: number;
  readonly accountId: number;
  readonly date: TermEnd | null;
  readonly amount: Amount | null;
}

/** What a mail tells. */
export interface News {
  readonly kind: NewsKind;
  /** Whose it is, by the domain of its sender; of a text that a person has pasted without one, by its names. `null` for a stranger's. */
  readonly accountId: number | null;
  readonly names: readonly NewsOfName[];
  /** Every date and amount that stands in it, for a person who looks. */
  readonly dates: readonly TermEnd[];
  readonly amounts: readonly Amount[];
  /** Sender, names and kind agree: what follows from it may be proposed. */
  readonly isSure: boolean;
}

const LINKS = /\b(?:https?|ftp):\/\/\S+|\bwww\.\S+/giu;
const MAILS = /[\p{L}\p{N}._%+-]{1,64}@[\p{L}\p{N}.-]{1,253}/giu;
const NAME =
  /(?<![\p{L}\p{N}@._/-])(?:[\p{L}\p{N}](?:[\p{L}\p{N}-]{0,61}[\p{L}\p{N}])?\.){1,4}[\p{L}][\p{L}\p{N}-]{1,62}(?![\p{L}\p{N}@-])/giu;
const MONTH = String.raw`\p{L}{3,12}\.?`;
const DATES = new RegExp(
  [
    String.raw`\d{4}-\d{2}-\d{2}(?:[T ]\d{2}:\d{2}(?::\d{2})?(?:Z| ?UTC| ?GMT)?)?`,
    String.raw`\d{4}\s*年\s*\d{1,2}\s*月\s*\d{1,2}\s*日`,
    String.raw`\d{1,2}[./-]\d{1,2}[./-]\d{4}`,
    String.raw`\d{4}[./]\d{1,2}[./]\d{1,2}`,
    String.raw`\d{1,2}(?:st|nd|rd|th|er|\.)?\s+(?:de\s+)?${MONTH}\s+(?:de\s+)?\d{4}`,
    String.raw`${MONTH}\s+\d{1,2}(?:st|nd|rd|th)?,?\s+\d{4}`,
  ].join('|'),
  'giu',
);
const FIGURE = String.raw`\d{1,3}(?:[.,'’ ]\d{3})*(?:[.,]\d{2})?|\d+(?:[.,]\d{2})?`;
const CODE = '(?:USD|EUR|GBP|CHF|PLN|SEK|DKK|NOK|TRY|JPY|BRL|CAD|AUD|CZK|HUF|MXN|INR)';
const AMOUNTS = new RegExp(
  String.raw`(?:(?:${SIGN_PATTERN}|${CODE})\s?(?:${FIGURE}))|(?:(?:${FIGURE})\s?(?:${SIGN_PATTERN}|${CODE})(?![\p{L}]))`,
  'gu',
);
/** More names than any mail that is read. */
const MOST_NAMES = 2000;

/** Whether the sender's domain says that it is this account's registrar: the host of its link, or its name. */
function isSenderOf(from: string, account: KnownToNews['accounts'][number]): boolean {
  const domain = from.slice(from.lastIndexOf('@') + 1);
  const parsed = parseDomainName(domain, { allowPrivateEndings: true });
  const labels = (isRefusal(parsed) ? domain : parsed.ascii).split('.');
  if (account.host?.split('.').slice(-2).join('.') === labels.slice(-2).join('.')) return true;
  const plain = (text: string) => text.toLowerCase().replace(/[^\p{L}\p{N}]/gu, '');
  const [owner = ''] = labels.slice(-2);
  return owner !== '' && [account.registrar, account.label].some((name) => plain(name) === plain(owner));
}

/** Whose a mail is, and whether its sender says so. */
interface Whose {
  readonly accountId: number | null;
  readonly bySender: boolean;
}

function accountOf(
  { from, isPasted = false }: Told,
  names: readonly { accountId: number }[],
  known: KnownToNews,
): Whose {
  const senders = known.accounts.filter((account) => isSenderOf(from, account));
  const holders = new Set(names.map(({ accountId }) => accountId));
  // One registrar may have several accounts here: the names say which.
  const [only, other] = senders.length > 1 ? senders.filter(({ id }) => holders.has(id)) : senders;
  if (only !== undefined) return { accountId: other === undefined ? only.id : null, bySender: true };
  const [holder] = holders;
  // A text that a person has pasted without its sender is theirs to believe; a stranger's mail is nobody's.
  return { accountId: holders.size === 1 && holder !== undefined ? holder : null, bySender: isPasted && from === '' };
}

function datesIn(line: string): TermEnd[] {
  return [...line.matchAll(DATES)].flatMap(([written]) => {
    const read = readDate(written.replace(/(\d) UTC$/, '$1 UTC'), null);
    return isRefusal(read) ? [] : [read];
  });
}

function amountsIn(line: string, style: NumberStyle): Amount[] {
  // What is a date is no amount.
  return [...line.replace(DATES, ' ').matchAll(AMOUNTS)].flatMap(([written]) => {
    const read = readAmount(written, { style });
    return isRefusal(read) ? [] : [read];
  });
}

const only = <T>(values: readonly T[], keyOf: (value: T) => string): T | null => {
  const different = new Map(values.map((value) => [keyOf(value), value]));
  return different.size === 1 ? (values[0] ?? null) : null;
};
const dateKey = ({ at, precision }: TermEnd) => `${at} ${precision}`;
const amountKey = ({ minor, currency }: Amount) => `${minor} ${currency}`;

/** A mail's lines, its subject first, without what leads elsewhere: a name within a link or an address is not spoken of. */
const linesOf = ({ subject, text }: Told): string[] =>
  `${subject}\n${text}`.replace(LINKS, ' ').replace(MAILS, ' ').split('\n');

/** Every name that lines speak of, with the line. */
function spokenIn(lines: readonly string[]): { ascii: string; line: string }[] {
  return lines.flatMap((line) =>
    [...line.matchAll(NAME)].flatMap(([written]) => {
      const name = parseDomainName(written, { allowPrivateEndings: true });
      return isRefusal(name) ? [] : [{ ascii: name.ascii, line }];
    }),
  );
}

/** The names that a mail speaks of, as A-labels, whoever holds them. */
export const namesSpokenOf = (told: Told): string[] => [...new Set(spokenIn(linesOf(told)).map(({ ascii }) => ascii))];

/** What kind of news it is: what the subject says alone; else what counts most of all that is spoken of. */
function kindOf({ subject, text }: Told): NewsKind {
  const [bySubject] = kindsIn(subject);
  return bySubject ?? kindsIn(text)[0] ?? 'other';
}

/**
 * Reads what a mail tells: which names of the ledger it speaks of, what kind of news it is, and the date and amount of each name, where there
 * is just one of them beside it, or in the whole mail. What is doubtful is left out, never guessed: nothing follows from it.
 */
export function readNews(told: Told, known: KnownToNews): News {
  const lines = linesOf(told);
  const found = new Map<string, { id: number; accountId: number; lines: string[] }>();
  for (const { ascii, line } of spokenIn(lines)) {
    const one = known.names.get(ascii);
    if (!one) continue;
    const before = found.get(ascii);
    if (before) before.lines.push(line);
    else if (found.size < MOST_NAMES) found.set(ascii, { ...one, lines: [line] });
  }
  const dates = lines.flatMap(datesIn);
  const amounts = lines.flatMap((line) => amountsIn(line, known.style));
  const [theDate, theAmount] = [only(dates, dateKey), only(amounts, amountKey)];
  const isAlone = found.size === 1;
  const names = [...found].map(([ascii, { id, accountId, lines: near }]): NewsOfName => {
    const [mine, cost] = [near.flatMap(datesIn), near.flatMap((line) => amountsIn(line, known.style))];
    return {
      ascii,
      nameId: id,
      accountId,
      date: mine.length > 0 ? only(mine, dateKey) : theDate,
      // A sum of several names is none of one of them.
      amount: cost.length > 0 ? only(cost, amountKey) : isAlone ? theAmount : null,
    };
  });
  const kind = kindOf(told);
  const whose = accountOf(told, names, known);
  const { accountId } = whose;
  // A signature that does not hold is a sender that was feigned. (SPF fails for what was merely forwarded.)
  const bySender = whose.bySender && !told.signatures?.some((found) => /^(dkim|dmarc)=fail/.test(found));
  const isSure =
    kind !== 'other' &&
    bySender &&
    accountId !== null &&
    names.length > 0 &&
    names.every((name) => name.accountId === accountId);
  return { kind, accountId: bySender ? accountId : null, names, dates, amounts, isSure };
}
