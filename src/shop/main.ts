import 'reflect-metadata';
import { serveShop, shopPlace } from './serve';

/** The shop as a process, on `PORT`. */
const shop = await serveShop(shopPlace(process.env));
console.log('shop ready');
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.on(signal, () => {
    void shop.stop().finally(() => process.exit(0));
    setTimeout(() => process.exit(0), 3000).unref();
  });
