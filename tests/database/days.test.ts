import { expect, test } from 'vitest';
import { instant } from '@/core/time';
import { upsertSettings } from '@/database/settings';
import { deadlineCalendar } from '@/usecases/calendar/calendar';
import { editNames } from '@/usecases/names/edit';
import { exportCsv } from '@/usecases/names/export';
import { enterOffer, lapseOffers, threadsOf } from '@/usecases/selling/offers';
import { must, sellingDesk } from './marketplace';

const NAME = 'copperbuoy.com';
const desk = sellingDesk([NAME]);

/** A ledger in a zone whose one name ends at an instant. */
const inZone = async (zone: string, end: string | null = null) => {
  await desk.begin();
  const { ledger } = desk.made;
  await upsertSettings(ledger.database, { zone });
  if (end) await ledger.database.query('update names set term_end = $1, term_end_day = false', [end]);
  return ledger;
};

test('an offer that stands until a day stands to the end of it in the office’s zone', async () => {
  const ledger = await inZone('America/Los_Angeles');
  const offer = { nameId: desk.id(NAME), buyer: 'Ann', amount: '300', currency: 'USD' };
  must(await enterOffer(ledger, { ...offer, until: '2026-12-09' }));
  const figure = async () => (await threadsOf(ledger, desk.id(NAME)))[0]?.figures[0];
  expect((await figure())?.lapsesAt).toBe(instant('2026-12-10T08:00:00Z'));
  ledger.setClock(instant('2026-12-10T07:59:59Z'));
  await lapseOffers(ledger);
  expect((await figure())?.state).toBe('live');
  // Still the 9th there: until today is a day that may be written.
  must(await enterOffer(ledger, { ...offer, buyer: 'Ben', until: '2026-12-09' }));
  ledger.setClock(instant('2026-12-10T08:00:00Z'));
  await lapseOffers(ledger);
  expect((await figure())?.state).toBe('lapsed');
  expect(await enterOffer(ledger, { ...offer, until: '2026-12-09' })).toMatchObject({ code: 'date-out-of-range' });
});

test('the feed names the last whole day of the zone, ends in CRLF, and asks for no report that nobody owes', async () => {
  // Half past three in the morning of 1 December UTC is still the evening of 30 November there.
  const ledger = await inZone('America/Los_Angeles', '2026-12-01T03:30:00Z');
  const feed = await deadlineCalendar(ledger);
  expect(feed.endsWith('END:VCALENDAR\r\n')).toBe(true);
  expect(feed.replaceAll('\r\n', '')).not.toContain('\n');
  const plain = feed.replaceAll('\r\n ', '');
  expect(plain).not.toContain('restore report due');
  expect(plain).toContain('The term ends 30 Nov 2026.');
});

test('days in a list of names are those of the office’s calendar', async () => {
  const daysIn = async (zone: string) => {
    const ledger = await inZone(zone, '2026-12-01T03:30:00Z');
    // The evening of 24 November in Los Angeles, the morning of the 25th in Auckland.
    ledger.setClock(instant('2026-11-25T01:00:00Z'));
    const csv = must(await exportCsv(ledger, new URLSearchParams('columns=name,days')));
    return String(csv).trim().split(/\r?\n/).at(-1)?.split(',').at(-1);
  };
  expect(await daysIn('America/Los_Angeles')).toBe('6');
  expect(await daysIn('Pacific/Auckland')).toBe('6');
  expect(await daysIn('UTC')).toBe('6');
});

test('a name without an end is found by a filter, and its end is set and corrected with where it was seen', async () => {
  const ledger = await inZone('UTC');
  await ledger.database.query('update names set term_end = null, term_end_day = false');
  const found = async () =>
    String(must(await exportCsv(ledger, new URLSearchParams('end=unknown&columns=name')))).includes(NAME);
  expect(await found()).toBe(true);
  const set = (expiresAt: string, evidence: string) =>
    editNames(ledger, { nameIds: [desk.id(NAME)], edit: { expiresAt, evidence } });
  must(await set('2027-05-13', 'invoice 4471'));
  expect(await found()).toBe(false);
  must(await set('2027-05-14T10:15:00Z', 'the registrar’s panel'));
  expect(await set('1970-01-01', '')).toMatchObject({ code: 'date-out-of-range', field: 'expiresAt' });
  const { rows } = await ledger.database.query("select evidence from changes where evidence <> '' order by id");
  expect(rows.map(({ evidence }) => evidence)).toEqual(
    expect.arrayContaining(['invoice 4471', 'the registrar’s panel']),
  );
});
