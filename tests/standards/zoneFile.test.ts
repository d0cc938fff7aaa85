import { describe, expect, test } from 'vitest';
import { delegationStands, signerOf } from '@/formats/zone/delegation';
import { quoteText, readZone, writeZone } from '@/formats/zone/zoneFile';

/** Source: RFC 1035 section 5.3, the example of a master file. */
const RFC1035_ZONE = `@   IN  SOA     VENERA      Action\\.domains (
                                 20     ; SERIAL
                                 7200   ; REFRESH
                                 600    ; RETRY
                                 3600000; EXPIRE
                                 60)    ; MINIMUM

        NS      A.ISI.EDU.
        NS      VENERA
        NS      VAXA
        MX      10      VENERA
        MX      20      VAXA

A       A       26.3.0.103

VENERA  A       10.1.0.52
        A       128.9.0.32

VAXA    A       10.2.0.27
        A       128.9.0.33
`;

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

describe('zone files', () => {
  test('the master file of RFC 1035 section 5.3', () => {
    const { zone, problems } = readZone(RFC1035_ZONE, 'ISI.EDU');
    expect(problems).toEqual([]);
    expect(zone.records.map(({ name, type, data }) => `${name} ${type} ${data}`)).toEqual([
      '@ SOA VENERA Action\\.domains 20 7200 600 3600000 60',
      '@ NS A.ISI.EDU.',
      '@ NS VENERA',
      '@ NS VAXA',
      '@ MX 10 VENERA',
      '@ MX 20 VAXA',
      'A A 26.3.0.103',
      'VENERA A 10.1.0.52',
      'VENERA A 128.9.0.32',
      'VAXA A 10.2.0.27',
      'VAXA A 128.9.0.33',
    ]);
  });

  test('what is written is read back', () => {
    const zone = {
      origin: 'kelpkiln.com',
      records: [
        { name: '@', ttl: 3600, type: 'NS', data: 'ns1.quaymark.test.' },
        { name: '@', ttl: 300, type: 'TXT', data: quoteText('v=spf1; "all" \\ and more') },
        { name: 'www', ttl: 600, type: 'A', data: '192.0.2.7' },
      ],
    };
    expect(readZone(writeZone(zone))).toEqual({ zone, problems: [] });
  });

  test('what is no record is named by its line', () => {
    expect(readZone('$INCLUDE other\n@ IN\n').problems).toEqual(['line 1: $INCLUDE is not taken', 'line 2: no record']);
  });
});
