import { describe, expect, test } from 'vitest';
import { formatDecimal } from '@/core/money';
import { type KnownToNews, readNews } from '@/core/news';
import { dayOf } from '@/core/time';
import { NAMES, REGISTRARS } from './mails/registrars';

/** Every registrar has an account, and the names are at the one that writes. */
const knownAt = (title: string): KnownToNews => ({
  names: new Map(NAMES.map((name, i) => [name, { id: i + 1, accountId: accountOf(title) }])),
  accounts: REGISTRARS.map((registrar) => ({
    id: accountOf(registrar.title),
    label: registrar.title,
    registrar: registrar.title,
    currency: 'EUR',
    // One is known by the host of its link: its name is spelt otherwise in its domain.
    host: ['Fyrskär', 'Rıhtım'].includes(registrar.title) ? `epp.${registrar.from.split('@')[1]}` : null,
  })),
  style: '1,234.50',
});
const accountOf = (title: string) => REGISTRARS.findIndex((one) => one.title === title) + 1;

const MAILS = REGISTRARS.flatMap(({ title, language, from, mails }) =>
  mails.map((mail) => ({ title, language, from, ...mail })),
);

test('sixty mails of twelve registrars in eleven languages', () => {
  expect(MAILS).toHaveLength(60);
  expect(new Set(MAILS.map(({ language }) => language)).size).toBe(11);
});

describe('every date, amount and name is found, and nothing else', () => {
  test.each(MAILS)('$language $title: $subject', ({ title, from, subject, body, kind, says }) => {
    const news = readNews({ from, subject, text: body }, knownAt(title));
    expect(news.kind).toBe(kind);
    expect(news.accountId).toBe(accountOf(title));
    expect(
      news.names.map(({ ascii, date, amount }) => ({
        name: ascii,
        ...(date ? { date: dayOf(date.at) } : {}),
        ...(amount ? { amount: `${formatDecimal(amount)} ${amount.currency}` } : {}),
      })),
    ).toEqual(says);
    expect(news.isSure).toBe(true);
  });
});

describe('what is doubtful is left out', () => {
  const read = (subject: string, text: string, from = 'service@quaymark.test') =>
    readNews({ from, subject, text }, knownAt('Quaymark'));

  test('a stranger’s mail, whatever it says', () => {
    expect(read('kelpkiln.com has been renewed', 'until 2027-12-06', 'billing@names-office.test').isSure).toBe(false);
    expect(read('kelpkiln.com has been renewed', 'until 2027-12-06', 'x@quaymark.test.elsewhere.test').isSure).toBe(
      false,
    );
  });
  test('a sender whose signature does not hold; what was merely forwarded is believed', () => {
    const signed = (...signatures: string[]) =>
      readNews(
        {
          from: 'service@quaymark.test',
          subject: 'kelpkiln.com has been renewed',
          text: 'until 2027-12-06',
          signatures,
        },
        knownAt('Quaymark'),
      );
    expect(signed('dkim=fail', 'spf=pass')).toMatchObject({ isSure: false, accountId: null });
    expect(signed('dkim=pass', 'dmarc=fail').isSure).toBe(false);
    expect(signed('dkim=pass', 'spf=fail').isSure).toBe(true);
  });
  test('names that are elsewhere, or none of ours', () => {
    const other = readNews(
      { from: 'service@wrackgate.test', subject: 'kelpkiln.com has been renewed', text: '' },
      knownAt('Quaymark'),
    );
    expect(other).toMatchObject({ isSure: false });
    expect(read('notours.com has been renewed', '')).toMatchObject({ names: [], isSure: false });
  });
  test('a name within a link or an address is not spoken of', () => {
    expect(read('Your invoice', 'https://panel.quaymark.test/kelpkiln.com\nwrite to me@kelpkiln.com').names).toEqual(
      [],
    );
    expect(read('News', 'kelpkiln.com.evil.test and sub-kelpkiln.com').names).toEqual([]);
  });
  test('two dates for one name, a day that may be two, a sum of several names', () => {
    expect(read('kelpkiln.com has been renewed', 'from 2026-12-06 to 2027-12-06').names[0]?.date).toBeNull();
    expect(read('kelpkiln.com has been renewed', 'until 04/05/2027').names[0]?.date).toBeNull();
    const two = read('These have been renewed', 'kelpkiln.com\nquaybarrow.com\nTotal $22.76').names;
    expect(two.map(({ amount }) => amount)).toEqual([null, null]);
  });
  test('what will be is not what has been', () => {
    expect(read('Notice', 'kelpkiln.com will be renewed for USD 289.00').kind).toBe('renewal ahead');
    expect(read('Notice', 'kelpkiln.com was renewed for USD 11.38').kind).toBe('renewed');
  });
  test('a text of nothing that is known', () => {
    expect(read('Summer offers', 'kelpkiln.com would look good with a shop')).toMatchObject({
      kind: 'other',
      isSure: false,
    });
  });
});
