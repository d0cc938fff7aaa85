import { demoBuyers } from '../marketplace/buyers';
import { passTo, schedule } from '../world/days';
import { blankDomain, STRANGERS } from '../world/domain';
import { practiceCustomers, practiceRegistrars } from '../world/registrars';
import { askToConfirmMail } from '../world/telling';
import type { Domain, World } from '../world/types';
import { makeWorld, nothingTouched } from '../world/world';
import { chanceFrom } from './chance';
import { openMarket } from './market';
import { demoNames } from './names';
import { FIRST_HALVES, IDEAS, SECOND_HALVES } from './words';

/** Whether somebody buys a late name at its auction: about one in five, always the same ones. */
export const bids: World['bids'] = (domain) =>
  [...domain.name].reduce((sum, letter) => sum + letter.charCodeAt(0), 0) % 5 === 0;

/** Whether somebody else registers a name the moment it is free: about one in two, always the same ones. */
export const grabs: World['grabs'] = (domain) =>
  [...domain.name].reduce((sum, letter) => sum + letter.charCodeAt(0), 0) % 2 === 0;

/** What the office does not know yet: the registration record tells. */
const UNTRUE: Readonly<Record<string, Partial<Domain>>> = {
  'copperbuoy.com': { lock: false },
  'larchpilot.com': { nameServers: ['ns1.parkwick.test', 'ns2.parkwick.test'] },
  'tidewick.com': { holder: 'Oda Fennimore', privacy: false },
  'stillbell.com': { hold: true },
};

const NAMES = 412;
/** Names registered within so many milliseconds have a holder who has not confirmed the mail address. */
const FRESH = 5 * 86_400_000;

/**
 * The practice world of the demo: the same names that the ledger has, as their registrars have them. They agree in most
 * things; a few settings that the ledger only believes are otherwise in truth.
 */
export function demoWorld(now: number): World {
  const registrars = practiceRegistrars(now);
  const chance = chanceFrom(90_210);
  const domains = demoNames(NAMES, now as never).map((name): Domain => {
    const registrar = registrars.find((one) => one.id === name.account.toLowerCase());
    const { fields } = name;
    const believed = fields.setting as string;
    const truth = believed === 'unknown' ? (chance.next() < 0.5 ? 'on' : 'off') : believed;
    const mistaken = fields.standing !== 'confirmed' && believed === 'on' && chance.next() < 0.04;
    const observed = fields.observed as string | undefined;
    const observedAt = Date.parse(String(fields.observed_at ?? ''));
    const domain: Domain = {
      ...blankDomain(name.ascii, registrar?.id ?? 'quaymark', name.registeredAt, Date.parse(String(fields.term_end))),
      ending: name.ending,
      auto: mistaken ? 'off' : (truth as Domain['auto']),
      failure: truth === 'stalled' ? 'balance too small' : null,
      lock: fields.lock === true,
      privacy: fields.privacy === true,
      nameServers: (fields.name_servers as string[] | undefined) ?? [],
      authInfo: `${name.ascii}-code`,
      premiumMinor: name.ascii === 'moorgauge.io' ? 6200 : null,
    };
    if (observed === 'pending restore' || observed === 'pending delete') {
      domain.state = observed;
      domain.since = observedAt;
      domain.deletedAt = observedAt - 30 * 86_400_000;
    }
    if (registrar) schedule(registrar, domain, now);
    return { ...domain, ...UNTRUE[name.ascii] };
  });
  const world = makeWorld(now, registrars, practiceCustomers(now), [...domains, ...others(now, domains)], bids, grabs);
  world.buyers = demoBuyers;
  // What lies in the past has been told long ago.
  passTo(world, now);
  world.messages.length = 0;
  openMarket(world, now);
  const fresh = [...world.domains.values()].filter(({ createdAt }) => createdAt > now - FRESH);
  for (const domain of fresh) askToConfirmMail(world, domain, domain.createdAt);
  world.touched = nothingTouched();
  for (const name of world.domains.keys()) world.touched.domains.add(name);
  for (const id of world.customers.keys()) world.touched.customers.add(id);
  return world;
}

const OTHERS = 60;

/** How many in a hundred of the names that the office would like are taken, by ending. */
const TAKEN_PERCENT: Readonly<Record<string, number>> = { com: 55, net: 25, org: 20, uk: 30, de: 25, io: 10 };

/** Names made of the office's ideas that others hold already. */
function wanted(own: ReadonlySet<string>): string[] {
  const chance = chanceFrom(5_150);
  const labels = IDEAS.flatMap((one) => [one, ...IDEAS.filter((other) => other !== one).map((other) => one + other)]);
  return labels.flatMap((label) =>
    Object.entries(TAKEN_PERCENT).flatMap(([ending, percent]) => {
      const name = `${label}.${ending}`;
      return chance.next() * 100 < percent && !own.has(name) ? [name] : [];
    }),
  );
}

/** Names that others hold: most of them renew themselves, some are on their way to be free. */
function others(now: number, own: readonly Domain[]): Domain[] {
  const chance = chanceFrom(31_337);
  const taken = new Set(own.map(({ name }) => name));
  const registrars = practiceRegistrars(now);
  const names = Array.from({ length: OTHERS }, (_, i) => {
    const first = FIRST_HALVES[(i * 7) % FIRST_HALVES.length];
    const second = SECOND_HALVES[(i * 5 + 3) % SECOND_HALVES.length];
    return `${first}${second}.${['com', 'com', 'net', 'org', 'uk', 'de'][i % 6]}`;
  }).filter((name, i, all) => !taken.has(name) && all.indexOf(name) === i);
  return [...names, ...wanted(taken)].map((name): Domain => {
    const ending = name.slice(name.indexOf('.') + 1);
    const sellers = registrars.filter(({ prices }) => prices[ending]);
    const registrar = chance.pick(sellers) as (typeof sellers)[number];
    const leaving = chance.next() < 0.3;
    const end = now + (leaving ? chance.whole(80) - 60 : chance.whole(700) + 20) * 86_400_000;
    const domain: Domain = {
      ...blankDomain(name, registrar.id, end - (1 + chance.whole(8)) * 365 * 86_400_000, end),
      owner: 'stranger',
      holder: chance.pick(STRANGERS),
      auto: leaving ? 'off' : 'on',
      privacy: chance.next() < 0.5,
      lock: chance.next() < 0.8,
      nameServers: ['ns1.parkwick.test', 'ns2.parkwick.test'],
    };
    schedule(registrar, domain, now);
    return domain;
  });
}
