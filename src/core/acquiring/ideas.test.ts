import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { readIdeas, wordsOfIdeas } from './ideas';

describe('ideas as they are read', () => {
  test.each([
    ['', [], [], []],
    [' , ;|\n', [], [], []],
    ['“tern”, ‘loft’!', ['tern', 'loft'], [], []],
    ['Tern TERN tern', ['tern'], [], []],
    ['tern|loft;cairn、wrack', ['tern', 'loft', 'cairn', 'wrack'], [], []],
    ['kelpkiln.co.uk', [], ['kelpkiln'], ['co.uk']],
    ['https://kelpkiln.com/about', [], ['kelpkiln'], ['com']],
    ['xn--mwe-sna', ['möwe'], [], []],
    ['mo\u0308we', ['möwe'], [], []],
    ['xn--mwenkai-90a.de', [], ['möwenkai'], ['de']],
    ['tern.', ['tern'], [], []],
  ])('%j', (ideas, words, names, endings) => {
    expect(readIdeas(ideas)).toEqual({ words, names, endings });
  });
});

describe('the words that other names are held against', () => {
  test('of all sets, each once, the labels of whole names among them', () => {
    expect(wordsOfIdeas(['tern, “loft”', 'LOFT cairn.org', ''])).toEqual(['tern', 'loft', 'cairn']);
    expect(wordsOfIdeas([])).toEqual([]);
  });

  test('whatever is typed, no word is empty, holds a space or stands twice', () => {
    fc.assert(
      fc.property(fc.array(fc.string({ unit: 'grapheme', maxLength: 30 }), { maxLength: 8 }), (texts) => {
        const words = wordsOfIdeas(texts);
        expect(new Set(words).size).toBe(words.length);
        for (const word of words) expect(word).toMatch(/^\S+$/u);
      }),
    );
  });
});
