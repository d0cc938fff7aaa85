import type { AddressInfo } from 'node:net';
import { expect, test } from 'vitest';
import { indexRules, policyOf, projectLedger, rowsOn } from '@/core/ledger';
import { GENERIC, nameWith, QUAYMARK, RENEWAL, rulesWith, TODAY } from '@/core/ledger/sampleLedger';
import type { Policy } from '@/core/lifecycle';
import { endAfterTransfer, groundsAgainst, movingFacts, seenOf, standingAt } from '@/core/moving';
import type { EppStatus } from '@/core/records';
import { addDays, formatInstant, type Instant } from '@/core/time';
import { readRdapDomain } from '@/formats/rdap/readRdap';
import { Faults } from '../../practice/epp/faults';
import { rdapServer } from '../../practice/records/rdap';
import { tell } from '../../practice/records/truth';
import { type Chance, chanceFrom } from '../../practice/scenario/chance';
import { DAY, yearsLater } from '../../practice/world/calendar';
import { passTo, schedule } from '../../practice/world/days';
import { blankDomain } from '../../practice/world/domain';
import { endingRules } from '../../practice/world/endings';
import { moveTo } from '../../practice/world/moving';
import { practiceCustomers, practiceRegistrars } from '../../practice/world/registrars';
import { transfer } from '../../practice/world/transfers';
import type { Customer, Domain, Registrar, World } from '../../practice/world/types';
import { makeWorld } from '../../practice/world/world';

/**
 * Whether a transfer would be accepted, by the core and by the practice world, which has its own rules and reads none of the core's: a
 * thousand names of any age, end, lock and last transfer, on each of fourteen days.
 */
const ENDINGS = ['com', 'uk', 'de', 'nl', 'ai'] as const;
const [LOSING, GAINING] = practiceRegistrars(TODAY) as [Registrar, Registrar];

const POLICIES = ENDINGS.map((ending): Policy => {
  const rules = endingRules(ending);
  return {
    ...GENERIC,
    ending,
    lateDays: rules.lateDays,
    redemptionDays: rules.redemptionDays,
    pendingDeleteDays: rules.pendingDeleteDays,
    transferYears: rules.transferYears,
    transferLockDays: rules.fixedDays,
    holderLockDays: rules.fixedDays,
    terms: { ...GENERIC.terms, renew: { ...GENERIC.terms.renew, least: rules.leastYears, step: rules.stepYears } },
    ceilingYears: rules.mostYears,
  };
});

function anyDomain(chance: Chance, i: number): Domain {
  const created = TODAY - chance.pick([5, 30, 46, 55, 59, 61, 400, 3000]) * DAY - chance.whole(86_400_000);
  const end =
    TODAY + chance.pick([-80, -50, -44, -20, -3, 2, 8, 60, 330, 3275, 3290, 3300]) * DAY + chance.whole(86_400_000);
  return {
    ...blankDomain(`n${i}.${chance.pick(ENDINGS)}`, LOSING.id, created, Math.max(end, created + 365 * DAY)),
    authInfo: 'code',
    auto: chance.whole(2) === 0 ? 'on' : 'off',
    lock: chance.whole(5) === 0,
    movedAt: chance.whole(3) === 0 ? Math.max(created, TODAY - chance.pick([10, 48, 58, 90]) * DAY) : null,
  };
}

/** What the core says from what is told of the name that day: whether it would be accepted, and the end if it arrived at once. */
function expectedOf(world: World, domain: Domain): { accepted: boolean; end: Instant | null } {
  const told = tell(world, domain.name, 'registry');
  if (told === null) return { accepted: false, end: null };
  const at = (ms: number) => ({ at: ms as Instant, precision: 'instant' }) as const;
  const charged = world.messages.findLast((one) => one.kind === 'charged' && one.name === domain.name);
  const name = nameWith(domain.name, formatInstant(domain.paidThrough as Instant), {
    ending: domain.ending,
    registered: at(told.createdAt),
    lock: domain.lock,
    setting: domain.auto,
    gracePaid: (charged?.at ?? null) as Instant | null,
    transferred: told.movedAt === null ? null : at(told.movedAt),
    statuses: told.statuses as EppStatus[],
    checkedAt: world.now as Instant,
  });
  const account = { ...QUAYMARK, lateDays: LOSING.lateDays };
  const rules = rulesWith({ policies: POLICIES, accounts: [account], prices: [RENEWAL] });
  const asOf = world.now as Instant;
  const projection = projectLedger(indexRules(rules), [name], asOf);
  const facts = movingFacts(rowsOn(projection, asOf)(0), policyOf(projection, 0));
  return {
    accepted: standingAt(groundsAgainst(facts, asOf), asOf).every(({ losesYear }) => losesYear),
    end: endAfterTransfer(facts, asOf, asOf),
  };
}

/** A copy of the name as it would be after the practice world had moved it. */
function arrivedAt(world: World, domain: Domain): Domain {
  const copy = { ...domain, owner: 'stranger' as const };
  moveTo(world, copy, GAINING.id, world.now);
  return copy;
}

test('a thousand names on fourteen days: what the core allows is accepted, what it refuses is not', () => {
  const chance = chanceFrom(26);
  const domains = Array.from({ length: 1000 }, (_, i) => anyDomain(chance, i));
  const world = makeWorld(TODAY - 90 * DAY, [LOSING, GAINING], practiceCustomers(TODAY), domains);
  (world.customers.get(LOSING.id) as Customer).balanceMinor = 1e9;
  for (const domain of domains) schedule(LOSING, domain, world.now);
  const customer = world.customers.get(GAINING.id) as Customer;
  const order = { world, registrar: GAINING, customer, clTRID: 'TEST' };
  const seen = { yes: 0, no: 0, lost: 0 };
  for (let day = 0; day < 14; day++) {
    passTo(world, addDays(TODAY, day));
    for (const domain of domains) {
      customer.balanceMinor = 1e7;
      const { code } = transfer(order, { name: domain.name, op: 'request', authInfo: 'code' });
      // A registrar that does not sell the ending says so; that is not the name's matter.
      if (code === 2306 && GAINING.prices[domain.ending] === undefined) continue;
      const isAccepted = code === 1001;
      if (isAccepted) expect(transfer(order, { name: domain.name, op: 'cancel', authInfo: null }).code).toBe(1000);
      const expected = expectedOf(world, domain);
      expect([domain.name, day, expected.accepted]).toEqual([domain.name, day, isAccepted]);
      seen[isAccepted ? 'yes' : 'no']++;
      if (!isAccepted) continue;
      const arrived = arrivedAt(world, domain);
      expect([domain.name, day, expected.end]).toEqual([domain.name, day, arrived.paidThrough]);
      if (arrived.paidThrough <= yearsLater(domain.paidThrough, -1 + endingRules(domain.ending).transferYears))
        seen.lost++;
    }
  }
  // Neither answer is rare.
  expect(Math.min(seen.yes, seen.no)).toBeGreaterThan(1000);
  expect(seen.lost).toBeGreaterThan(50);
});

test('a transfer stands in the registration record as an event (RFC 9083 section 10.2.3), and counts from there', async () => {
  const moved = TODAY - 20 * DAY;
  const domain: Domain = {
    ...anyDomain(chanceFrom(1), 1),
    createdAt: TODAY - 900 * DAY,
    paidThrough: TODAY + 200 * DAY,
  };
  const told = [null, moved].map((movedAt, i) => ({ ...domain, name: `sealamp${i}.com`, movedAt, lock: false }));
  const world = makeWorld(TODAY, [LOSING, GAINING], practiceCustomers(TODAY), told);
  const server = rdapServer(world, new Faults(), () => base);
  let base = '';
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  const grounds: string[][] = [];
  for (const { name } of told) {
    const answer = await fetch(`${base}/registry/domain/${name}`);
    const record = readRdapDomain(await answer.json(), name);
    if (!record) throw new Error('no record');
    const { statuses, transferredAt } = seenOf(name, [record]);
    const held = nameWith(name, '2027-06-12T00:00:00Z', {
      statuses,
      transferred: transferredAt === null ? null : { at: transferredAt, precision: 'instant' },
    });
    const projection = projectLedger(indexRules(rulesWith()), [held], TODAY);
    const facts = movingFacts(rowsOn(projection, TODAY)(0), GENERIC);
    grounds.push(
      groundsAgainst(facts, TODAY).map(({ kind, until }) => `${kind} ${until === null ? '' : until - moved}`),
    );
  }
  server.close();
  expect(grounds[0]?.some((ground) => ground.startsWith('transferred lately'))).toBe(false);
  expect(grounds[1]).toContain(`transferred lately ${60 * DAY}`);
});
