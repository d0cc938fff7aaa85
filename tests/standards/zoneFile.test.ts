import { expect, test } from 'vitest';
import { delegationStands, signerOf } from '@/formats/zone/delegation';
import { quoteText, writeZone } from '@/formats/zone/zoneFile';

/** Source: RFC 4034 section 5.4, a key and its delegation signer. */
test('the signer of RFC 4034 section 5.4 is that of its key', () => {
  const key = {
    flags: 256,
    algorithm: 5,
    key: Buffer.from(
      'AQOeiiR0GOMYkDshWoSKz9XzfwJr1AYtsmx3TGkJaNXVbfi/2pHm822aJ5iI9BMzNXxeYCmZDRD99WYwYqUSdjMmmAphXdvxegXd/M5+X7OrzKBaMbCVdFLUUh6DhweJBjEVv5f2wwjM9XzcnOf+EPbtG9DMBmADjFDc2w/rljwvFw==',
      'base64',
    ),
  };
  const signer = '60485 5 1 2BB183AF5F22588179A53B0A98631FAD1A292118';
  expect(signerOf('dskey.example.com.', key, 1)).toBe(signer);
  expect(delegationStands('dskey.example.com', [signer], [key])).toBe(true);
  expect(delegationStands('dskey.example.com', [signer], [])).toBe(false);
  expect(delegationStands('dskey.example.com', [signer.replace('2BB1', '2BB2')], [key])).toBe(false);
  expect(delegationStands('dskey.example.com', [signer.replace(' 5 1 ', ' 5 99 ')], [key])).toBeNull();
});

/** Source: RFC 1035 section 5.1: an entry a line, the origin ends in a dot, strings are quoted, a backslash takes a sign as it is. */
test('a zone is written as a master file', () => {
  const zone = {
    origin: 'kelpkiln.com',
    records: [
      { name: '@', ttl: 3600, type: 'NS', data: 'ns1.quaymark.test.' },
      { name: '@', ttl: 300, type: 'TXT', data: quoteText('v=spf1; "all" \\ and more') },
      { name: 'www', ttl: 600, type: 'A', data: '192.0.2.7' },
    ],
  };
  expect(writeZone(zone)).toBe(
    [
      '$ORIGIN kelpkiln.com.',
      '@\t3600\tIN\tNS\tns1.quaymark.test.',
      '@\t300\tIN\tTXT\t"v=spf1; \\"all\\" \\\\ and more"',
      'www\t600\tIN\tA\t192.0.2.7',
      '',
    ].join('\n'),
  );
});
