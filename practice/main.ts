import { demoBuyers } from './marketplace/buyers';
import { type PracticePorts, runPractice } from './run';
import { bids, demoWorld, grabs } from './scenario/world';
import { Store } from './store';
import { practiceRegistrars } from './world/registrars';

/** The practice world as a process: it keeps itself in `PRACTICE_DATABASE_URL` and begins at `PRACTICE_NOW`. Says its ports as one line of JSON; given them back as `PRACTICE_AT`, it listens there again. */
const url = process.env.PRACTICE_DATABASE_URL;
if (!url) throw new Error('PRACTICE_DATABASE_URL is not set; bin/start runs the practice world with the demo');
const now = process.env.PRACTICE_NOW ? Date.parse(process.env.PRACTICE_NOW) : Date.now();
const store = await Store.open(url);
let world = await store.load(practiceRegistrars(now), { bids, grabs, buyers: demoBuyers });
if (!world) {
  world = demoWorld(now);
  await store.save(world);
}
const at = process.env.PRACTICE_AT ? (JSON.parse(process.env.PRACTICE_AT) as PracticePorts) : null;
const shopPort = Number(process.env.PRACTICE_SHOP_PORT ?? 0);
const practice = await runPractice({ world, store, shopPort, ...(at ? { at } : {}) });
const logins = Object.fromEntries(
  [...world.customers.values()].map(({ registrar, login }) => [login, practice.ports[registrar]]),
);
console.log(
  JSON.stringify({
    control: practice.controlPort,
    mail: practice.mailPort,
    mailbox: practice.mailboxPort,
    records: practice.records,
    marketplace: practice.marketplacePort,
    rates: practice.ratesPort,
    acme: practice.acmePort,
    logins,
    at: practice.at,
  }),
);

for (const signal of ['SIGINT', 'SIGTERM'] as const) {
  process.on(signal, () => {
    void practice
      .stop()
      .then(() => store.close())
      .finally(() => process.exit(0));
  });
}
