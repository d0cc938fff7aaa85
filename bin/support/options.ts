import { parseArgs } from 'node:util';

/** What the start command was told. README.md lists it. */
export const { values: options } = parseArgs({
  options: {
    fresh: { type: 'boolean', default: false },
    empty: { type: 'boolean', default: false },
    demo: { type: 'boolean', default: false },
    port: { type: 'string', default: '4180' },
    'shop-port': { type: 'string' },
    'shop-listen': { type: 'string' },
    'shop-tls-port': { type: 'string' },
    'shop-proxy': { type: 'string' },
    listen: { type: 'string' },
    host: { type: 'string' },
    certificate: { type: 'string' },
    'certificate-key': { type: 'string' },
    proxy: { type: 'string' },
    today: { type: 'string' },
    log: { type: 'boolean', default: false },
    'rotate-key': { type: 'boolean', default: false },
  },
});
