import { expect, test } from 'vitest';
import { callerAddress } from './callerAddress';

const PROXY = '192.0.2.1';
test.each([
  ['without a proxy nothing forwarded is believed', '203.0.113.9', '198.51.100.1', null, '203.0.113.9'],
  ['nor from anybody else than the proxy', '203.0.113.9', '198.51.100.1', PROXY, '203.0.113.9'],
  ['of the proxy the last that it has added', PROXY, '10.0.0.1, 198.51.100.1', PROXY, '198.51.100.1'],
  ['also as several lines', PROXY, ['10.0.0.1', '198.51.100.1'], PROXY, '198.51.100.1'],
  ['what is no address is none', PROXY, '10.0.0.1, <script>', PROXY, PROXY],
  ['nothing forwarded is the proxy itself', PROXY, undefined, PROXY, PROXY],
  ['a mapped address is the same', `::ffff:${PROXY}`, '2001:db8::7', PROXY, '2001:db8::7'],
])('%s', (_, remote, forwarded, proxy, address) => {
  expect(callerAddress(remote, forwarded, proxy)).toBe(address);
});
