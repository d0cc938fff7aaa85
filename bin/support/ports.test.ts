import { expect, test } from 'vitest';
import { portsIn, shopIn } from './ports';

test('without a shop port there is no shop', () => {
  expect(portsIn({ port: '4180' })).toEqual({ port: 4180, shop: null });
});

test('a shop is on this machine unless it is said otherwise', () => {
  expect(portsIn({ port: '4180', 'shop-port': '4190' }).shop).toEqual({
    port: 4190,
    listen: '127.0.0.1',
    tlsPort: null,
    proxy: null,
  });
  expect(shopIn({ 'shop-listen': '::', 'shop-tls-port': '443', 'shop-proxy': '2001:db8::1' }, 80)).toEqual({
    port: 80,
    listen: '::',
    tlsPort: 443,
    proxy: '2001:db8::1',
  });
});

test.each([
  [{ port: '0' }, 'Give --port a number'],
  [{ port: '4180', 'shop-port': '65536' }, 'Give --shop-port a number'],
  [{ port: '4180', 'shop-port': '4180' }, 'Give --shop-port another port'],
  [{ port: '4180', 'shop-port': '4190', 'shop-tls-port': '4190' }, 'Give the shop another port for TLS'],
  [{ port: '4180', 'shop-port': '4190', 'shop-tls-port': '4180' }, 'Give --shop-port another port'],
  [{ port: '4180', 'shop-port': '4190', 'shop-listen': 'harbour' }, 'Give --shop-listen an address'],
  [{ port: '4180', 'shop-port': '4190', 'shop-proxy': 'harbour' }, 'Give --shop-proxy the address'],
  [{ port: '4180', 'shop-listen': '0.0.0.0' }, 'Say with --shop-port'],
])('%j is refused in words', (said, why) => {
  expect(() => portsIn(said)).toThrow(why);
});
