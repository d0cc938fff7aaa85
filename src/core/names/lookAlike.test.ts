import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { CONFUSABLES } from './confusables';
import { isIdnaLetter, lookAlikeWarning, parseDomainName, skeletonOf } from './index';

/** Source: UTS #39 section 5.1, table 1a and section 5.2; the words of the table in small letters, as names are. */
describe('letters of several scripts in one label', () => {
  test.each([
    ['circle.com', null],
    ['сirсlе.com', 'Latin and Cyrillic'],
    ['αlpha.com', 'Latin and Greek'],
    ['ねガ.com', null],
    ['切手ねガ.com', null],
    ['切手kelp.com', null],
    ['한국kelp.com', null],
    ['切手скала.com', 'Cyrillic and Han'],
    ['möwe.de', null],
    ['скала.com', null],
    ['kelp.рф', null],
  ])('%s', (unicode, scripts) => {
    const warning = lookAlikeWarning(unicode);
    if (scripts === null) expect(warning).toBeNull();
    else expect(warning).toContain(`mixes ${scripts} letters`);
  });

  test.each([
    ['сорр.com', 'copp'],
    ['kelp.сор.com', 'cop'],
    ['օո.com', 'on'],
  ])('%s is read as a Latin word', (unicode, twin) => {
    expect(lookAlikeWarning(unicode)).toContain(`can be read as ${twin}`);
  });
});

describe('what letters are read as', () => {
  test('every one is a letter that names may have (RFC 5892), read as letters or digits of a-z and 0-9', () => {
    expect(CONFUSABLES.size).toBeGreaterThan(150);
    for (const [letter, read] of CONFUSABLES) {
      expect([...letter]).toHaveLength(1);
      expect([letter, isIdnaLetter(letter)]).toEqual([letter, true]);
      expect([letter, read]).toEqual([letter, expect.stringMatching(/^[a-z0-9]{1,2}$/)]);
      expect(letter).not.toMatch(/[a-z0-9-]/);
    }
  });

  test('a label of one letter that is read as another is told, unless it is written in Latin letters', () => {
    for (const [letter, read] of CONFUSABLES) {
      const warning = lookAlikeWarning(`${letter}.com`);
      if (warning !== null) expect(warning).toContain(read);
      expect([letter, skeletonOf(letter)]).toEqual([letter, skeletonOf(read)]);
    }
  });

  test('a skeleton is its own skeleton, and does not change with how the letters are composed', () => {
    const letters = fc.string({ unit: fc.constantFrom(...'abklmnorvw01-öèсорα'), maxLength: 16 });
    fc.assert(
      fc.property(letters, (label) => {
        const skeleton = skeletonOf(label);
        expect(skeletonOf(skeleton)).toBe(skeleton);
        expect(skeletonOf(label.normalize('NFD'))).toBe(skeleton);
      }),
    );
  });
});

test('the warning travels with the name, however it was written', () => {
  for (const written of ['сорр.com', 'xn--n1aeab.com', 'СОРР.com'])
    expect(parseDomainName(written)).toMatchObject({ warning: expect.any(String) });
});
