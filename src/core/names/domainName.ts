import { parse } from 'tldts';
import { toASCII, toUnicode } from 'tr46';
import { type Refusal, refuse } from '../refusal';
import { lookAlikeWarning } from './lookAlike';

/** A registrable domain name in both forms. Only `parseDomainName` makes one. */
export interface DomainName {
  /** A-label form, lower case, without a trailing dot: the form that identifies the name. */
  readonly ascii: string;
  /** U-label form, for reading. Equal to `ascii` for plain names. */
  readonly unicode: string;
  /** The public suffix the name is registered under, A-label form: `com`, `co.uk`. */
  readonly ending: string;
  /** What a careful reader should look at twice (mixed scripts, look-alike letters), or `null`. */
  readonly warning: string | null;
}

export interface NameRules {
  /** Take names under a suffix of the list's private section, which only its owner hands out. */
  readonly allowPrivateEndings?: boolean;
}

const UTS46 = {
  checkBidi: true,
  checkHyphens: true,
  checkJoiners: true,
  useSTD3ASCIIRules: true,
  transitionalProcessing: false,
  verifyDNSLength: true,
} as const;

const PLAIN = /^[a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?(\.[a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?)+$/;
const SCHEME = /^[a-z][a-z0-9+.-]*:\/\//i;
const IP_ADDRESS = /^\d{1,3}(\.\d{1,3}){3}$/;

/** Takes off what people paste around a name: scheme, user, port, path, quotes, brackets, trailing dots and commas. */
function bare(input: string): string {
  let text = input
    .normalize('NFC')
    .trim()
    .replace(/^[<"'“”‘’([]+|[>"'“”‘’)\],;]+$/gu, '');
  text = text.replace(SCHEME, '').replace(/^[^@/]*@/, '');
  text = text.replace(/[/?#].*$/u, '').replace(/:\d+$/, '');
  return text.replace(/[.。．｡]+$/u, '');
}

/**
 * Reads a domain name the way people write it and gives both forms, or says why it is none.
 *
 * UTS #46 (non-transitional, STD3, hyphens, joiners, bidi, lengths) makes the A-label; the Public Suffix List gives the
 * ending. A leading `www.` is taken off; any other host name is refused with the name that was probably meant.
 * Lengths: RFC 1035 section 2.3.4 (63 octets a label, 253 in all); hyphens and A-labels: RFC 5890 section 2.3.
 */
export function parseDomainName(input: string, rules: NameRules = {}): DomainName | Refusal {
  // Most names are written plainly: nothing stands around them.
  if (isPlain(input) && !IP_ADDRESS.test(input)) return registrable(input, rules);
  const text = bare(input);
  if (text === '') return refuse('name-empty', 'There is no name here. Write one like seaholly.com.');
  if (text.length > 1000) return refuse('name-too-long', 'This is too long for a name: 253 characters at most.');
  if (IP_ADDRESS.test(text)) return refuse('name-is-address', `${text} is an address, not a name.`);
  const lower = text.toLowerCase();
  const ascii = isPlain(lower) ? lower : toASCII(text, UTS46);
  if (ascii === null || ascii === '') return refuseSpelling(text);
  const context = refuseContext(ascii);
  if (context) return context;
  if (ascii.length > 253) return refuse('name-too-long', `${shorten(text)} is too long: 253 characters at most.`);
  return registrable(ascii, rules);
}

/** A name as it is written itself, of which UTS #46 changes nothing. */
const isPlain = (text: string) => text.length <= 253 && PLAIN.test(text) && !text.includes('--');

/** What is looked up in the Public Suffix List is a host's name already, and no address. */
const AS_IT_IS = { extractHostname: false, validateHostname: false, detectIp: false } as const;
const WITH_PRIVATE = { ...AS_IT_IS, allowPrivateDomains: true } as const;

function registrable(ascii: string, rules: NameRules): DomainName | Refusal {
  const listed = parse(ascii, WITH_PRIVATE);
  // Both are the same where no private ending is met, which is nearly always.
  const icann = listed.isPrivate ? parse(ascii, AS_IT_IS) : listed;
  const suffix = icann.publicSuffix ?? '';
  if (!ascii.includes('.')) {
    return icann.isIcann
      ? refuseEnding(ascii)
      : refuse('name-without-ending', `${readable(ascii)} has no ending. Did you mean ${readable(ascii)}.com?`);
  }
  if (!icann.isIcann) {
    return refuse('name-unknown-ending', `No registry hands out names under .${readable(suffix)}. Check the ending.`);
  }
  if (listed.isPrivate && listed.publicSuffix !== null) {
    const privateSuffix = listed.publicSuffix;
    if (rules.allowPrivateEndings)
      return listed.domain === null ? refuseEnding(ascii) : take(listed.domain, ascii, privateSuffix);
    if (ascii !== icann.domain) {
      const meant = icann.domain === null ? '' : ` Did you mean ${readable(icann.domain)}?`;
      return refuse(
        'name-private-ending',
        `Names under .${readable(privateSuffix)} are handed out by its owner, not by a registry.${meant} Allow private endings to take it as it is.`,
      );
    }
  }
  if (icann.domain === null) {
    return refuseEnding(ascii);
  }
  return take(icann.domain, ascii, suffix);
}

function refuseEnding(ascii: string): Refusal {
  return refuse(
    'name-is-ending',
    `${readable(ascii)} is an ending. Put a name before it, like seaholly.${readable(ascii)}.`,
  );
}

/** The registrable part, when `ascii` is it or only carries a leading `www.`. */
function take(domain: string, ascii: string, ending: string): DomainName | Refusal {
  if (ascii !== domain && ascii !== `www.${domain}`) {
    return refuse('name-is-host', `${readable(ascii)} is a host within a name. Did you mean ${readable(domain)}?`);
  }
  const unicode = readable(domain);
  return { ascii: domain, unicode, ending, warning: lookAlikeWarning(unicode) };
}

/** The U-label form of a valid A-label name. */
function readable(ascii: string): string {
  return ascii.includes('xn--') ? toUnicode(ascii, UTS46).domain : ascii;
}

/** Letters that are valid only beside others. */
interface ContextRule {
  readonly letter: RegExp;
  readonly isFine: (label: string) => boolean;
  readonly why: string;
}

/** The contextual rules of RFC 5892 appendix A, but for the joiners (A.1, A.2), which UTS #46 checks. */
const CONTEXT_RULES: readonly ContextRule[] = [
  {
    letter: /\u00b7/,
    isFine: (label) => !/(?<!l)\u00b7|\u00b7(?!l)/.test(label),
    why: 'has a middle dot, which only stands between two letters l',
  },
  {
    letter: /\u0375/,
    isFine: (label) => !/\u0375(?!\p{Script=Greek})/u.test(label),
    why: 'has a Greek numeral sign without a Greek letter behind it',
  },
  {
    letter: /[\u05f3\u05f4]/,
    isFine: (label) => !/(?<!\p{Script=Hebrew})[\u05f3\u05f4]/u.test(label),
    why: 'has a Hebrew sign without a Hebrew letter before it',
  },
  {
    letter: /\u30fb/,
    isFine: (label) => /[\p{Script=Hiragana}\p{Script=Han}]|(?!\u30fb)\p{Script=Katakana}/u.test(label),
    why: 'has a Japanese middle dot without a Japanese letter',
  },
  {
    letter: /[\u0660-\u0669]/,
    isFine: (label) => !/[\u06f0-\u06f9]/.test(label),
    why: 'mixes two kinds of Arabic digits',
  },
];

function refuseContext(ascii: string): Refusal | null {
  if (!ascii.includes('xn--')) return null;
  for (const label of readable(ascii).split('.'))
    for (const { letter, isFine, why } of CONTEXT_RULES)
      if (letter.test(label) && !isFine(label))
        return refuse('name-letter-in-context', `${shorten(label)} ${why}. No registry takes it: check the spelling.`);
  return null;
}

function shorten(text: string): string {
  return text.length > 60 ? `${text.slice(0, 57)}…` : text;
}

/** Says which rule of spelling a refused text breaks, since UTS #46 itself only says no. */
function refuseSpelling(text: string): Refusal {
  const labels = text.split(/[.。．｡]/u);
  const shown = shorten(text);
  if (labels.some((label) => label === '')) return refuse('name-empty-label', `${shown} has two dots in a row.`);
  if (labels.some((label) => /^[\x20-\x7e]{64,}$/.test(label)) || text.length > 253) {
    return refuse('name-too-long', `${shown} is too long: 63 characters between dots, 253 in all.`);
  }
  if (labels.some((label) => label.startsWith('-') || label.endsWith('-'))) {
    return refuse('name-hyphen', `${shown} begins or ends with a hyphen between its dots. Check the spelling.`);
  }
  if (labels.some((label) => /^xn--/i.test(label))) {
    return refuse('name-bad-a-label', `${shown} is not valid punycode. Write the name in its own letters.`);
  }
  if (labels.some((label) => label.slice(2, 4) === '--')) {
    return refuse('name-hyphen', `${shown} has hyphens in third and fourth place, which is kept for punycode.`);
  }
  if (/\s/u.test(text)) return refuse('name-with-space', `${shown} holds a space. Write one name for each row.`);
  return refuse('name-bad-letter', `${shown} holds a character that a name cannot have. Check the spelling.`);
}
