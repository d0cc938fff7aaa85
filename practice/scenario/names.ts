import { parseDomainName } from '@/core/names';
import { isRefusal } from '@/core/refusal';
import { addDays, addYears, DAY_MS, formatInstant, type Instant } from '@/core/time';
import type { NamePatch } from '@/database/changes';
import type { NewName } from '@/database/names';
import { type Chance, chanceFrom } from './chance';
import { FIRST_HALVES, SECOND_HALVES, TAGS } from './words';

/** A demo name with what the rest of the scenario needs of it. */
export interface DemoName extends NewName {
  readonly account: string;
  readonly registeredAt: Instant;
  readonly boughtMinor: number | null;
}

interface Case {
  readonly name: string;
  readonly account: string;
  /** Days from today to the end of the term. */
  readonly end: number;
  readonly years: number;
  readonly setting: 'on' | 'off' | 'stalled' | 'unknown';
  readonly asking?: number;
  readonly more?: NamePatch;
  readonly bought?: number;
}

/** The names whose troubles the demo is about: every phase, and every way to lose one. Days count from `now`. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: a list of names, each with its story
function cases(now: Instant): Case[] {
  const ago = (days: number) => formatInstant(addDays(now, -days));
  const sale = { purpose: 'for sale' };
  return [
    {
      name: 'brinelantern.com',
      account: 'Quaymark',
      end: -72,
      years: 8,
      setting: 'off',
      asking: 1200,
      more: sale,
    },
    {
      name: 'osierandoak.com',
      account: 'Wrackgate',
      end: -54,
      years: 5,
      setting: 'stalled',
      asking: 2400,
      more: sale,
    },
    { name: 'petrelworks.net', account: 'Quaymark', end: -37, years: 6, setting: 'off' },
    {
      name: 'kelpkiln.com',
      account: 'Quaymark',
      end: -18,
      years: 7,
      setting: 'stalled',
      asking: 3800,
      more: {
        ...sale,
        setting_since: ago(23),
        standing: 'confirmed',
        setting_evidence: 'mail of the registrar',
      },
      bought: 64_000,
    },
    { name: 'fathomloft.org', account: 'Fernhithe', end: -5, years: 3, setting: 'off', asking: 950 },
    {
      name: 'tidewick.com',
      account: 'Wrackgate',
      end: 5,
      years: 11,
      setting: 'on',
      asking: 18_500,
      more: { ...sale, never_lost: true, standing: 'confirmed' },
    },
    { name: 'moorgauge.io', account: 'Fernhithe', end: 9, years: 2, setting: 'on', asking: 4200 },
    {
      name: 'copperbuoy.com',
      account: 'Quaymark',
      end: 15,
      years: 4,
      setting: 'off',
      asking: 2750,
      more: sale,
    },
    { name: 'larchpilot.com', account: 'Wrackgate', end: 17, years: 3, setting: 'on', asking: 1400 },
    {
      name: 'stillharbor.net',
      account: 'Quaymark',
      end: 24,
      years: 9,
      setting: 'on',
      more: { purpose: 'in use', never_lost: true },
    },
    {
      name: 'windroseyard.com',
      account: 'Fernhithe',
      end: 40,
      years: 6,
      setting: 'off',
      asking: 6900,
      more: { ...sale, requested: 'on', requested_at: ago(1) },
    },
    { name: 'plumbline.uk', account: 'Fernhithe', end: 45, years: 4, setting: 'on', asking: 3100 },
    {
      name: 'saltmarshpress.com',
      account: 'Wrackgate',
      end: 58,
      years: 2,
      setting: 'on',
      asking: 5200,
      more: sale,
    },
    {
      name: 'skerrybell.com',
      account: 'Quaymark',
      end: -70,
      years: 4,
      setting: 'off',
      more: { observed: 'pending restore', observed_at: ago(3), purpose: 'in use' },
    },
    {
      name: 'oakumforge.net',
      account: 'Quaymark',
      end: -80,
      years: 3,
      setting: 'off',
      more: { observed: 'pending delete', observed_at: ago(2), purpose: 'drop' },
    },
    {
      name: 'tholelocker.com',
      account: 'Wrackgate',
      end: -90,
      years: 2,
      setting: 'off',
      more: { purpose: 'drop' },
    },
    {
      name: 'haaratlas.com',
      account: 'Wrackgate',
      end: 130,
      years: 1,
      setting: 'off',
      more: { observed: 'pending transfer', observed_at: ago(2) },
    },
    { name: 'marramweave.com', account: 'Quaymark', end: 363, years: 0, setting: 'on', bought: 1138 },
    { name: 'eelgrassmill.de', account: 'Bollard', end: 12, years: 3, setting: 'on' },
    { name: 'möwenspeicher.de', account: 'Bollard', end: 33, years: 5, setting: 'off' },
    {
      name: 'krähenkai.eu',
      account: 'Bollard',
      end: -4,
      years: 2,
      setting: 'off',
      more: { purpose: 'drop' },
    },
    { name: 'withycellar.com', account: 'Bollard', end: -3, years: 4, setting: 'off', asking: 1500 },
    {
      name: 'foghornparlour.uk',
      account: 'Larkhythe',
      end: 21,
      years: 2,
      setting: 'off',
      more: { never_lost: true, purpose: 'in use' },
    },
    {
      name: 'curlewalmanac.ai',
      account: 'Wrackgate',
      end: 140,
      years: 2,
      setting: 'on',
      asking: 9400,
      more: sale,
    },
    { name: 'halyardthread.shop', account: 'Quaymark', end: 75, years: 1, setting: 'on' },
    { name: 'estuarysmithy.com', account: 'Larkhythe', end: 48, years: 3, setting: 'unknown' },
  ];
}

const ENDINGS: Readonly<Record<string, readonly string[]>> = {
  Quaymark: ['com', 'com', 'com', 'com', 'net', 'org', 'co', 'me'],
  Wrackgate: ['com', 'com', 'com', 'com', 'net', 'org', 'co'],
  Fernhithe: ['com', 'com', 'org', 'io', 'net', 'uk'],
  Bollard: ['com', 'de', 'de', 'eu', 'nl', 'net'],
  Larkhythe: ['uk', 'uk', 'com', 'me'],
};
const ACCOUNTS = [
  'Quaymark',
  'Quaymark',
  'Quaymark',
  'Wrackgate',
  'Wrackgate',
  'Fernhithe',
  'Bollard',
  'Larkhythe',
] as const;

/** `count` names around `now`: the special cases, then ordinary ones whose terms end over the coming two years. */
export function demoNames(count: number, now: Instant): DemoName[] {
  const chance = chanceFrom(1707);
  const taken = new Set<string>();
  const names: DemoName[] = [];
  const add = (one: Case) => {
    const made = demoName(one, now, chance);
    if (!made || taken.has(made.ascii)) return;
    taken.add(made.ascii);
    names.push(made);
  };
  for (const one of cases(now)) add(one);
  while (names.length < count) add(ordinary(chance));
  return names;
}

function ordinary(chance: Chance): Case {
  const account = chance.pick(ACCOUNTS);
  const first = chance.pick(FIRST_HALVES);
  const name = `${first}${chance.pick(SECOND_HALVES.filter((half) => half !== first))}.${chance.pick(ENDINGS[account] ?? ['com'])}`;
  const setting = chance.next() < 0.72 ? 'on' : chance.next() < 0.85 ? 'off' : 'unknown';
  const purpose = chance.next() < 0.4 ? 'for sale' : chance.next() < 0.15 ? 'in use' : 'hold';
  const asking =
    purpose === 'for sale' || chance.next() < 0.3
      ? Math.round((350 + chance.next() ** 3 * 24_000) / 50) * 50
      : undefined;
  const tags = [...new Set([chance.pick(TAGS), chance.pick(TAGS)])].slice(0, 1 + chance.whole(2)).sort();
  const end = 20 + Math.floor(chance.next() ** 0.8 * (chance.next() < 0.8 ? 365 : 720));
  const more = {
    purpose,
    tags,
    lock: chance.next() < 0.9,
    privacy: chance.next() < 0.7,
    standing: chance.next() < 0.45 ? 'confirmed' : 'believed',
  };
  return {
    name,
    account,
    end,
    years: 1 + chance.whole(9),
    setting,
    ...(asking ? { asking } : {}),
    ...(chance.next() < 0.12 ? { bought: 4000 + chance.whole(90_000) } : {}),
    more,
  };
}

function demoName(one: Case, now: Instant, chance: Chance): DemoName | null {
  const parsed = parseDomainName(one.name);
  if (isRefusal(parsed)) return null;
  const dayOnly = chance.next() < 0.2;
  const minute = chance.whole(1440) * 60_000;
  const midnight = Math.floor(addDays(now, one.end) / DAY_MS) * DAY_MS;
  const end = (dayOnly ? midnight : midnight + minute) as Instant;
  // Never registered in the future, however far ahead its term ends.
  const years = Math.max(one.years, Math.ceil((one.end + 20) / 365));
  const registeredAt = one.years === 0 ? addDays(now, -2) : addYears(end, -years);
  const host = one.account.toLowerCase();
  const fields: NamePatch = {
    registered: formatInstant(registeredAt),
    registered_day: dayOnly,
    term_end: formatInstant(end),
    term_end_day: dayOnly,
    setting: one.setting,
    setting_since: one.setting === 'unknown' ? null : formatInstant(addDays(now, -chance.whole(300) - 10)),
    setting_evidence: one.setting === 'unknown' ? null : 'imported list',
    name_servers: [`ns1.${host}.test`, `ns2.${host}.test`],
    lock: true,
    checked_at: chance.next() < 0.5 ? formatInstant(addDays(now, -chance.whole(60))) : null,
    ...(one.asking === undefined ? {} : { asking_minor: one.asking * 100, asking_currency: 'USD' }),
    ...one.more,
  };
  const { ascii, unicode, ending } = parsed;
  return {
    ascii,
    unicode,
    ending,
    fields,
    account: one.account,
    registeredAt,
    boughtMinor: one.bought ?? null,
  };
}
