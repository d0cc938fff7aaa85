import { expect, test } from 'vitest';
import { readHosts } from './index';

test('name servers are read one a line or with commas, each once, without their last dot', () => {
  expect(readHosts('NS1.Quaymark.test.\nns2.quaymark.test, ns1.quaymark.test')).toEqual([
    'ns1.quaymark.test',
    'ns2.quaymark.test',
  ]);
});

test.each([
  ['ns1.quaymark.test', 'Write 2 to 13 name servers'],
  ['', 'Write 2 to 13 name servers'],
  [Array.from({ length: 14 }, (_, i) => `ns${i}.quaymark.test`).join(' '), 'Write 2 to 13 name servers'],
  ['ns1.quaymark.test 192.0.2.1;ns_2.quaymark.test', 'ns_2.quaymark.test is no name server'],
  ['ns1.quaymark.test -ns2.quaymark.test', '-ns2.quaymark.test is no name server'],
  ['ns1 ns2', 'ns1 is no name server'],
  [`ns1.quaymark.test ${'a'.repeat(64)}.test`, 'is no name server'],
])('%s is refused', (text, message) => {
  expect((readHosts(text) as { message: string }).message).toContain(message);
});
