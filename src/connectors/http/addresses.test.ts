import { describe, expect, test } from 'vitest';
import { isPublic, mayAsk } from './addresses';

describe('which addresses are public (IANA special-purpose registries, RFC 6890)', () => {
  test.each([
    ['10.1.2.3', 'private, RFC 1918'],
    ['169.254.169.254', 'link-local, RFC 3927'],
    ['100.64.0.1', 'shared, RFC 6598'],
    ['0.0.0.0', 'this host, RFC 1122'],
    ['127.255.0.1', 'loopback, RFC 1122'],
    ['224.0.0.251', 'multicast, RFC 5771'],
    ['255.255.255.255', 'broadcast, RFC 919'],
    ['::1', 'loopback, RFC 4291'],
    ['::', 'unspecified, RFC 4291'],
    ['::ffff:127.0.0.1', 'mapped, RFC 4291 section 2.5.5.2'],
    ['::ffff:10.0.0.1', 'mapped, RFC 4291 section 2.5.5.2'],
    ['::7f00:1', 'IPv4-compatible, RFC 4291 section 2.5.5.1'],
    ['64:ff9b::a00:1', 'NAT64, RFC 6052'],
    ['64:ff9b:1::1', 'local NAT64, RFC 8215'],
    ['2002:7f00:1::', '6to4, RFC 3056'],
    ['2001:0:a00:1::', 'Teredo, RFC 4380'],
    ['fd00::1', 'unique local, RFC 4193'],
    ['fe80::1', 'link-local, RFC 4291'],
    ['fec0::1', 'site-local, RFC 3879'],
    ['ff02::1', 'multicast, RFC 4291'],
    ['2001:db8::1', 'documentation, RFC 3849'],
    ['not an address', ''],
  ])('%s is not (%s)', (address) => expect(isPublic(address)).toBe(false));

  test.each(['9.9.9.9', '198.17.0.1', '2620:fe::fe', '2a00:1450::1'])('%s is', (address) =>
    expect(isPublic(address)).toBe(true),
  );

  test('a host is asked when it is public or allowed; a name is looked at when it is looked up', () => {
    expect(mayAsk('127.0.0.1', [])).toBe(false);
    expect(mayAsk('[::1]', [])).toBe(false);
    expect(mayAsk('127.0.0.1', ['127.0.0.1'])).toBe(true);
    expect(mayAsk('registry.example', [])).toBe(true);
  });
});
