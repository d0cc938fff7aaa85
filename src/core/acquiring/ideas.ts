import { parseDomainName, splitNames } from '../names';
import { isRefusal } from '../refusal';

/** Ideas as they are read: each word, label and ending once, in lower case, in its own letters (NFC). */
export interface Ideas {
  readonly words: readonly string[];
  /** Labels of whole names that were written among the words. */
  readonly names: readonly string[];
  /** Endings of those names. */
  readonly endings: readonly string[];
}

/** Reads ideas, words apart from whole names; quotation marks and marks at the end are no part of a word. */
export function readIdeas(ideas: string): Ideas {
  const [words, names, endings] = [new Set<string>(), new Set<string>(), new Set<string>()];
  for (const { text } of splitNames(ideas.normalize('NFC').toLowerCase())) {
    const name = text.includes('.') ? parseDomainName(text) : null;
    if (name && !isRefusal(name)) {
      names.add(name.unicode.slice(0, name.unicode.indexOf('.')));
      endings.add(name.ending);
    } else words.add(inItsLetters(text).replace(/[.!?“”"'’]+$|^["“'‘]+/gu, ''));
  }
  words.delete('');
  return { words: [...words], names: [...names], endings: [...endings] };
}

/** Every word of several texts of ideas once, the labels of whole names among them: what other names are held against. */
export function wordsOfIdeas(texts: readonly string[]): string[] {
  const { words, names } = readIdeas(texts.join('\n'));
  return [...new Set([...words, ...names])];
}

/** A word that was written in punycode, in its own letters. */
function inItsLetters(word: string): string {
  const name = word.startsWith('xn--') ? parseDomainName(`${word}.com`) : null;
  return name && !isRefusal(name) ? name.unicode.slice(0, name.unicode.indexOf('.')) : word;
}
