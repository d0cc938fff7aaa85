import 'reflect-metadata';
import { serveShop, shopPlace } from './serve';

/** After what it was told to wait for it ends, whatever still hangs. */
const LAST_MS = 3000;

/** The shop as a process, on `PORT`. */
const place = shopPlace(process.env);
const shop = await serveShop(place);
console.log('shop ready');
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.on(signal, () => {
    void shop.stop().finally(() => process.exit(0));
    setTimeout(() => process.exit(0), place.drainMs + LAST_MS).unref();
  });
