import { describe, expect, test } from 'vitest';
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
