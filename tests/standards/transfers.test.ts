import type { AddressInfo } from 'node:net';
import { expect, test } from 'vitest';
import { indexRules, projectLedger, rowsOn } from '@/core/ledger';
import { GENERIC, nameWith, QUAYMARK, RENEWAL, rulesWith, TODAY } from '@/core/ledger/sampleLedger';
import type { Policy } from '@/core/lifecycle';
import { groundsAgainst, movingFacts, standingAt } from '@/core/moving';
import type { EppStatus } from '@/core/records';
import { addDays, formatInstant, type Instant } from '@/core/time';
import { readRdapDomain } from '@/formats/rdap/readRdap';
import { Faults } from '../../practice/epp/faults';
import { rdapServer } from '../../practice/records/rdap';
import { tell } from '../../practice/records/truth';
import { type Chance, chanceFrom } from '../../practice/scenario/chance';
import { DAY } from '../../practice/world/calendar';
import { passTo, schedule } from '../../practice/world/days';
import { blankDomain } from '../../practice/world/domain';
import { endingRules } from '../../practice/world/endings';
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
    lock: chance.whole(5) === 0,
    movedAt: chance.whole(3) === 0 ? Math.max(created, TODAY - chance.pick([10, 48, 58, 90]) * DAY) : null,
  };
}

/** What the core says from what is told of the name that day. */
function accepted(world: World, domain: Domain): boolean {
  const told = tell(world, domain.name, 'registry');
  if (told === null) return false;
  const at = (ms: number) => ({ at: ms as Instant, precision: 'instant' }) as const;
  const name = nameWith(domain.name, formatInstant(domain.paidThrough as Instant), {
    ending: domain.ending,
    registered: at(told.createdAt),
    lock: domain.lock,
    setting: 'off',
  });
  const account = { ...QUAYMARK, lateDays: LOSING.lateDays };
  const rules = rulesWith({ policies: POLICIES, accounts: [account], prices: [RENEWAL] });
  const asOf = world.now as Instant;
  const projection = projectLedger(indexRules(rules), [name], asOf);
  const facts = movingFacts(rowsOn(projection, asOf)(0), projection.policies[0] as Policy, [
    {
      lastAt: asOf,
      record: {
        statuses: told.statuses as EppStatus[],
        events: told.movedAt === null ? [] : [{ action: 'transfer', at: told.movedAt as Instant }],
        registered: told.createdAt as Instant,
      },
    },
  ]);
  return standingAt(groundsAgainst(facts, asOf), asOf).every(({ losesYear }) => losesYear);
}

test('a thousand names on fourteen days: what the core allows is accepted, what it refuses is not', () => {
  const chance = chanceFrom(26);
  const domains = Array.from({ length: 1000 }, (_, i) => anyDomain(chance, i));
  const world = makeWorld(TODAY - 90 * DAY, [LOSING, GAINING], practiceCustomers(TODAY), domains);
  for (const domain of domains) schedule(LOSING, domain, world.now);
  const customer = world.customers.get(GAINING.id) as Customer;
  const order = { world, registrar: GAINING, customer, clTRID: 'TEST' };
  const seen = { yes: 0, no: 0 };
  for (let day = 0; day < 14; day++) {
    passTo(world, addDays(TODAY, day));
    for (const domain of domains) {
      customer.balanceMinor = 1e7;
      const { code } = transfer(order, { name: domain.name, op: 'request', authInfo: 'code' });
      // A registrar that does not sell the ending says so; that is not the name's matter.
      if (code === 2306 && GAINING.prices[domain.ending] === undefined) continue;
      if (code === 1001) expect(transfer(order, { name: domain.name, op: 'cancel', authInfo: null }).code).toBe(1000);
      expect([domain.name, day, accepted(world, domain)]).toEqual([domain.name, day, code === 1001]);
      seen[code === 1001 ? 'yes' : 'no']++;
    }
  }
  // Neither answer is rare.
  expect(Math.min(seen.yes, seen.no)).toBeGreaterThan(1000);
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
    const projection = projectLedger(indexRules(rulesWith()), [nameWith(name, '2027-06-12T00:00:00Z')], TODAY);
    const facts = movingFacts(rowsOn(projection, TODAY)(0), GENERIC, [{ lastAt: TODAY, record }]);
    grounds.push(
      groundsAgainst(facts, TODAY).map(({ kind, until }) => `${kind} ${until === null ? '' : until - moved}`),
    );
  }
  server.close();
  expect(grounds[0]?.some((ground) => ground.startsWith('transferred lately'))).toBe(false);
  expect(grounds[1]).toContain(`transferred lately ${60 * DAY}`);
});
