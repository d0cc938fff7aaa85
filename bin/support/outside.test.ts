import { describe, expect, test } from 'vitest';
import { leadsOutside, outsideOf } from './outside';

// Two files that are there; what stands in them is looked at by the program itself.
const TLS = { certificate: 'package.json', 'certificate-key': 'package-lock.json' };
const HOST = { host: 'Names.Example.test' };

describe('listening beyond this machine', () => {
  test.each([
    [{ listen: '0.0.0.0' }, '--host'],
    [{ listen: '0.0.0.0', host: 'localhost' }, '--host'],
    [{ listen: '0.0.0.0', host: 'names.example.test/x' }, '--host'],
    [{ listen: 'names.example.test', ...HOST, ...TLS }, 'an address of this machine'],
    [{ listen: '0.0.0.0', ...HOST }, 'over TLS alone'],
    [{ listen: '0.0.0.0', ...HOST, certificate: 'package.json' }, 'belong together'],
    [{ listen: '0.0.0.0', ...HOST, certificate: 'none.pem', 'certificate-key': 'none.key' }, 'none.pem is not there'],
    [{ listen: '0.0.0.0', ...HOST, proxy: 'proxy.example.test' }, 'the address from which the proxy asks'],
    [{ ...HOST, ...TLS }, 'with --listen'],
    [{ listen: '127.0.0.1', ...HOST }, 'with --listen'],
  ])('%o is refused, and says what to do: %s', (options, words) => {
    expect(() => outsideOf(options, 4180)).toThrow(words);
  });

  test('with a certificate of its own it is shown under its own port, but for the usual one', () => {
    expect(outsideOf({ listen: '0.0.0.0', ...HOST, ...TLS }, 4180)?.origin).toBe('https://names.example.test:4180');
    expect(outsideOf({ listen: '::', ...HOST, ...TLS }, 443)?.origin).toBe('https://names.example.test');
  });

  test('behind a proxy it is shown under the proxy’s port', () => {
    const outside = outsideOf({ listen: '192.0.2.9', ...HOST, proxy: '192.0.2.7' }, 4180);
    expect(outside?.origin).toBe('https://names.example.test');
    expect(outside?.env).toEqual({
      NAME_LEDGER_LISTEN: '192.0.2.9',
      NAME_LEDGER_LISTEN_PORT: '4180',
      NAME_LEDGER_ORIGIN: 'https://names.example.test',
      NAME_LEDGER_PROXY: '192.0.2.7',
    });
  });

  test('without --listen the program stays on this machine', () => {
    for (const listen of [undefined, '127.0.0.1', '::1', 'localhost']) expect(outsideOf({ listen }, 4180)).toBeNull();
    expect(leadsOutside(undefined)).toBe(false);
    expect(leadsOutside('http://127.0.0.1:4180')).toBe(false);
    expect(leadsOutside('https://names.example.test')).toBe(true);
  });
});
