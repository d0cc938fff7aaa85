import { afterEach, describe, expect, test } from 'vitest';
import { kindAt } from '@/core/acquiring';
import { isRefusal } from '@/core/refusal';
import { addDays } from '@/core/time';
import { askForNames } from '@/usecases/acquiring/askForNames';
import { askAgain, pauseIdeas, saveIdeas } from '@/usecases/acquiring/ideas';
import { type CandidateTable, candidateTable } from '@/usecases/acquiring/table';
import { askedToRegister, unregistered } from '../../practice/world/unregistered';
import { acquiringLedger, strangersHold } from './acquiring';
import { TODAY } from './ledger';
import type { LinkedLedger } from './practice';

let made: LinkedLedger;
afterEach(() => made.close());

async function begin(mostQuestionsASecond?: number): Promise<void> {
  made = await acquiringLedger(mostQuestionsASecond);
}
const strangers = (...names: readonly string[]) => strangersHold(made, ...names);

async function keep(ideas: string, endings = ['com', 'net', 'org', 'uk'], patterns = ['{a}']): Promise<number> {
  const id = await saveIdeas(made.ledger, null, { ideas, patterns, endings, heldYears: 5 });
  if (isRefusal(id)) throw new Error(id.message);
  return id;
}

async function table(id: number): Promise<CandidateTable> {
  const found = await candidateTable(made.ledger, id);
  if (isRefusal(found)) throw new Error(found.message);
  return found;
}

/** The kind of every name of a table. */
const kindsOf = (found: CandidateTable) =>
  Object.fromEntries(
    Array.from(found.cells, (_, cell) => {
      const { labels, endings } = found;
      const label = labels[Math.floor(cell / endings.length)];
      return [`${label}.${endings[cell % endings.length]?.ending}`, kindAt(found, cell)];
    }),
  );

describe('asking for names', () => {
  test('what is found of 5,000 names is what their registries know, and nobody’s word is stretched', async () => {
    await begin();
    const { ledger, world } = made;
    strangers('loft3.com', 'loft5.org', 'loft7.uk', 'loft11.net');
    const words = (count: number) => Array.from({ length: count }, (_, i) => `loft${i}`).join(' ');
    const ids = [await keep(`${words(2399)} copperbuoy`, ['com', 'net']), await keep(words(100), ['org', 'uk'])];
    await askForNames(ledger);
    const found = (await Promise.all(ids.map(table))).map(kindsOf).flatMap((kinds) => Object.entries(kinds));
    expect(found).toHaveLength(5000);
    const truthOf = (name: string) => {
      if (name === 'copperbuoy.com') return 'ours';
      if (world.domains.has(name)) return 'taken';
      if (!name.endsWith('.com') && !name.endsWith('.net')) return 'perhaps';
      const { reserved, own } = unregistered(name);
      return reserved ? 'reserved' : own ? 'premium' : 'available';
    };
    expect(found.filter(([name, kind]) => kind !== truthOf(name))).toEqual([]);
    for (const kind of ['premium', 'reserved', 'taken', 'perhaps', 'available'])
      expect(found.some((one) => one[1] === kind)).toBe(true);
  }, 60_000);

  test('a name with a price of its own costs that, with its dear renewals', async () => {
    await begin();
    const id = await keep(Array.from({ length: 80 }, (_, i) => `kelp${i}`).join(' '), ['com']);
    await askForNames(made.ledger);
    const found = await table(id);
    expect(found.own.length).toBeGreaterThan(0);
    const quaymark = made.world.registrars.get('quaymark');
    for (const { cell, holding, accountId } of found.own) {
      const name = `${found.labels[cell]}.com`;
      const { own } = unregistered(name);
      if (!own || !quaymark) throw new Error(name);
      expect(accountId).toBe(made.accountId);
      expect(holding.firstMinor).toBe(askedToRegister(quaymark, name, 1));
      expect(holding.totals[4]).toBe(own.registerMinor + 4 * own.renewMinor);
    }
  });

  test('a taken name says when it may come free at the earliest', async () => {
    await begin();
    strangers('wrackloft.com');
    const id = await keep('wrackloft', ['com']);
    await askForNames(made.ledger);
    const { taken } = await table(id);
    expect(taken).toMatchObject([{ cell: 0, termEnd: addDays(TODAY, 65) }]);
    // Term, then redemption 30 days, then five of deletion: no earlier, even if it is deleted at once.
    expect(taken[0]?.earliest).toBe(addDays(TODAY, 65 + 35));
  });

  test('without a link, a record and a name server nobody can say, and it is never shown as available', async () => {
    await begin();
    await made.ledger.database.query(
      'update settings set value = value || \'{"bootstrap": null, "whois": {}, "dns": null}\' where key = \'records\'',
    );
    const id = await keep('wrackloft', ['org', 'de']);
    for (let minute = 0; minute < 12; minute += 1) {
      made.ledger.setClock(addDays(TODAY, minute / 48));
      await askForNames(made.ledger);
    }
    expect(Object.values(kindsOf(await table(id)))).toEqual(['unknown', 'unknown']);
    expect((await table(id)).progress).toMatchObject({ waiting: 0, records: 0 });
  });
});

describe('answers are used again for a while, and asked for anew on demand', () => {
  test('what has changed since is marked', async () => {
    await begin();
    const id = await keep('wrackloft ternloft', ['com']);
    await askForNames(made.ledger);
    expect(kindsOf(await table(id))).toEqual({ 'wrackloft.com': 'available', 'ternloft.com': 'available' });
    strangers('ternloft.com');
    // Another set of the same names asks nobody while the answers hold.
    await keep('ternloft', ['com']);
    expect(await askForNames(made.ledger)).toBe(0);
    made.ledger.setClock(addDays(TODAY, 1));
    await askAgain(made.ledger, id, true);
    await askForNames(made.ledger);
    const found = await table(id);
    expect(kindsOf(found)).toEqual({ 'wrackloft.com': 'available', 'ternloft.com': 'taken' });
    expect(found.changed).toEqual([{ cell: 1, before: 'available' }]);
  });

  test('it is paused, and resumed where it was', async () => {
    await begin();
    const id = await keep('wrackloft ternloft', ['com']);
    await pauseIdeas(made.ledger, id, true);
    expect(await askForNames(made.ledger)).toBe(0);
    expect((await table(id)).progress.waiting).toBe(2);
    await pauseIdeas(made.ledger, id, false);
    expect(await askForNames(made.ledger)).toBe(2);
  });

  test('a registrar that is away loses nothing: the records are asked, and a perhaps is all that is said', async () => {
    await begin();
    made.practice.faults.set('quaymark', 'refused', 1000);
    const id = await keep('wrackloft', ['com']);
    await askForNames(made.ledger);
    expect(Object.values(kindsOf(await table(id)))).toEqual(['perhaps']);
  });

  test('once it is back it is asked again, however often it was silent', async () => {
    await begin();
    const close = async () => {
      for (const { link } of made.ledger.links.values()) await link.close();
    };
    await close();
    made.practice.faults.set('quaymark', 'refused', 1000);
    await keep(Array.from({ length: 400 }, (_, i) => `wrack${i}`).join(' '), ['com']);
    await askForNames(made.ledger);
    made.practice.faults.set('quaymark', null, 0);
    const id = await keep('ternloft', ['com']);
    await askForNames(made.ledger);
    expect(kindsOf(await table(id))).toEqual({ 'ternloft.com': 'available' });
  });

  test('a server that asks to wait is waited for', async () => {
    await begin(5);
    const id = await keep(Array.from({ length: 12 }, (_, i) => `cairn${i}`).join(' '), ['org']);
    await askForNames(made.ledger);
    expect((await table(id)).progress.records).toBeGreaterThan(0);
    for (let pass = 1; pass < 6; pass += 1) {
      made.ledger.setClock(addDays(TODAY, pass / 24));
      await askForNames(made.ledger);
    }
    expect(new Set(Object.values(kindsOf(await table(id))))).toEqual(new Set(['perhaps']));
  });
});

test('letters that an ending’s registry does not take are not asked for', async () => {
  await begin();
  const id = await keep('möwenkai', ['com', 'uk', 'de']);
  expect(kindsOf(await table(id))).toMatchObject({
    'xn--mwenkai-90a.uk': 'not possible',
    'xn--mwenkai-90a.de': 'not asked',
  });
});

test.each([
  [{ ideas: ' ' }, 'no-ideas'],
  [{ ideas: 'tern', endings: [] }, 'no-endings'],
  [{ ideas: 'tern', endings: ['notanending'] }, 'ending-unknown'],
  [{ ideas: 'tern', patterns: ['{z}'] }, 'pattern-unreadable'],
  [{ ideas: 'tern', heldYears: 11 }, 'request-invalid'],
  [
    {
      ideas: Array.from({ length: 4000 }, (_, i) => `w${i}`).join(' '),
      endings: ['com', 'net', 'org', 'uk', 'de', 'nl', 'eu', 'io', 'me', 'co', 'ai', 'shop', 'info', 'biz', 'fr', 'it'],
    },
    'too-many-candidates',
  ],
])('ideas that make no sense are refused: %#', async (wrong, code) => {
  await begin();
  const usual = { ideas: 'tern', patterns: ['{a}'], endings: ['com'], heldYears: 5 };
  const request = { ...usual, ...wrong };
  expect(await saveIdeas(made.ledger, null, request)).toMatchObject({ code });
});
