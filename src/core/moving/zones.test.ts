import { expect, test } from 'vitest';
import { compareZones } from './index';

const record = (name: string, type: string, data: string, ttl = 3600) => ({ name, type, data, ttl });

test('records that are lost and records that have come, whatever their order and time to live', () => {
  const before = [
    record('@', 'NS', 'ns1.quaymark.test.'),
    record('@', 'MX', '10 mail.kelpkiln.com.'),
    record('www', 'A', '192.0.2.7'),
    record('@', 'TXT', '"v=spf1 -all"'),
  ];
  const after = [
    record('www', 'A', '192.0.2.9', 60),
    record('@', 'TXT', '"v=spf1 -all"'),
    record('@', 'NS', 'NS1.Quaymark.test', 60),
  ];
  expect(compareZones(before, after)).toEqual({
    lost: [before[1], before[2]],
    came: [after[0]],
  });
});

test('what servers make by themselves is no difference; the letters of a text are one', () => {
  const made = [record('@', 'SOA', 'a b 1 2 3 4 5'), record('@', 'RRSIG', 'A 8 2 …'), record('@', 'NSEC', 'b.')];
  expect(compareZones(made, [])).toEqual({ lost: [], came: [] });
  const [one, other] = [record('@', 'TXT', '"Key=AbC"'), record('@', 'TXT', '"Key=abc"')];
  expect(compareZones([one], [other])).toEqual({ lost: [one], came: [other] });
});

test('a zone compared with itself differs in nothing', () => {
  const zone = Array.from({ length: 500 }, (_, i) => record(`h${i}`, 'A', `192.0.2.${i % 250}`));
  expect(compareZones(zone, [...zone].reverse())).toEqual({ lost: [], came: [] });
});
