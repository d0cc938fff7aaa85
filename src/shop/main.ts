import 'reflect-metadata';
import { serveShop } from './serve';

/** The shop as a process, on `PORT`. */
const server = await serveShop(Number(process.env.PORT));
console.log('shop ready');
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.on(signal, () => {
    server.close(() => process.exit(0));
    server.closeIdleConnections();
    setTimeout(() => process.exit(0), 3000).unref();
  });
