import { describe, expect, test } from 'vitest';
import { trustForwarded, turnAway } from './guard';

const HOST = '127.0.0.1:4180';
const knock = (method: string, url: string, headers: Record<string, string> = {}) =>
  turnAway({ method, url, headers: { host: HOST, ...headers } })?.code ?? null;

describe('who is let in', () => {
  test.each([
    ['127.0.0.1', null],
    ['127.0.0.1:4180', null],
    ['LOCALHOST:4180', null],
    ['[::1]:4180', null],
    ['evil.test', 'foreign-host'],
    ['127.0.0.1.evil.test', 'foreign-host'],
    ['127.0.0.1:4180@evil.test', 'foreign-host'],
    ['0x7f.1', 'foreign-host'],
    ['', 'foreign-host'],
  ])('host %j: %s', (host, code) => expect(knock('GET', '/', { host })).toBe(code));

  test.each([
    ['http://127.0.0.1:4180', null],
    ['http://127.0.0.1', 'foreign-origin'],
    ['http://localhost:4180', 'foreign-origin'],
    ['null', 'foreign-origin'],
    ['', 'foreign-origin'],
    ['http://[', 'foreign-origin'],
  ])('origin %j: %s', (origin, code) => expect(knock('GET', '/', { origin })).toBe(code));

  test.each([
    ['/today', null],
    ['/today?a=%zz', null],
    ['/ledger/%zz', 'target-unreadable'],
    ['//evil.test', 'target-unreadable'],
    ['http://127.0.0.1:4180/', 'target-unreadable'],
    ['*', 'target-unreadable'],
  ])('target %s: %s', (url, code) => expect(knock('GET', url)).toBe(code));

  test('behind a proxy of the office, under its name and no other', () => {
    const office = new URL('https://ledger.office.example');
    const at = (host: string) => turnAway({ method: 'GET', url: '/', headers: { host } }, office)?.code ?? null;
    expect([at('ledger.office.example'), at('other.office.example'), at(HOST)]).toEqual([null, 'foreign-host', null]);
  });
});

describe('what writes', () => {
  const json = { 'content-type': 'application/json' };
  test.each<[string, Record<string, string>, string | null]>([
    ['/api/v1/renewals', { ...json, 'content-length': '1048576' }, null],
    ['/api/v1/renewals', { ...json, 'content-length': '1048577' }, 'body-too-large'],
    ['/api/v1/renewals', { ...json, 'transfer-encoding': 'chunked' }, 'length-missing'],
    ['/api/v1/names/import', { 'content-type': 'text/csv', 'transfer-encoding': 'chunked' }, null],
    [
      '/api/v1/names/import',
      { 'content-type': 'text/csv', 'content-length': String(64 * 2 ** 20 + 1) },
      'body-too-large',
    ],
    ['/api/v1/backup', { ...json, 'content-length': String(2 ** 30) }, null],
    ['/today', { ...json, 'content-length': String(4 * 2 ** 20 + 1) }, 'body-too-large'],
    ['/api/v1/renewals', { 'content-type': 'Text/Plain' }, 'content-type-unfit'],
    ['/api/v1/renewals', { 'content-type': ' multipart/form-data; boundary=x' }, 'content-type-unfit'],
    ['/api/v1/renewals', {}, 'content-type-unfit'],
    ['/today', { 'content-type': 'text/plain', origin: `http://${HOST}` }, null],
  ])('%s with %j: %s', (path, headers, code) => expect(knock('POST', path, headers)).toBe(code));
});

test('what a request says of having been forwarded is taken away, or set to the proxy that is configured', () => {
  const headers = {
    host: 'ledger.office.example',
    'x-forwarded-host': 'evil.test',
    'x-forwarded-for': '1.2.3.4',
    forwarded: 'x',
  };
  const bare: Record<string, string | undefined> = { ...headers };
  trustForwarded(bare, null);
  expect(bare).toEqual({ host: 'ledger.office.example' });
  const proxied: Record<string, string | undefined> = { ...headers };
  trustForwarded(proxied, new URL('https://ledger.office.example'));
  expect(proxied).toEqual({
    host: 'ledger.office.example',
    'x-forwarded-host': 'ledger.office.example',
    'x-forwarded-proto': 'https',
  });
});
