const NEIGHBOURS: Readonly<Record<string, string>> = {
  a: 'sq',
  b: 'vn',
  c: 'xv',
  d: 'sf',
  e: 'wr',
  f: 'dg',
  g: 'fh',
  h: 'gj',
  i: 'uo',
  j: 'hk',
  k: 'jl',
  l: 'k',
  m: 'n',
  n: 'bm',
  o: 'ip',
  p: 'o',
  q: 'wa',
  r: 'et',
  s: 'ad',
  t: 'ry',
  u: 'yi',
  v: 'cb',
  w: 'qe',
  x: 'zc',
  y: 'tu',
  z: 'x',
};
/** Letters that are taken for one another when read. */
const TWINS: readonly (readonly [string, string])[] = [
  ['l', '1'],
  ['o', '0'],
  ['rn', 'm'],
  ['vv', 'w'],
  ['i', 'l'],
];
const OTHER_ENDINGS = ['com', 'net', 'org'];

/**
 * Names that are easily typed or read for `ascii`: a letter left out, doubled, swapped, beside it on the keys, or a twin; a hyphen
 * more or less; another common ending. In order of how near they are, without the name itself.
 */
export function nearSpellings(ascii: string): string[] {
  const dot = ascii.indexOf('.');
  const label = ascii.slice(0, dot);
  const ending = ascii.slice(dot + 1);
  if (label.startsWith('xn--'))
    return OTHER_ENDINGS.filter((other) => other !== ending).map((other) => `${label}.${other}`);
  const labels = new Set<string>();
  const at = (i: number, put: string, length = 1) => label.slice(0, i) + put + label.slice(i + length);
  for (let i = 0; i < label.length; i += 1) {
    const letter = label[i] as string;
    const next = label[i + 1];
    if (next !== undefined && next !== letter) labels.add(at(i, next + letter, 2));
    labels.add(at(i, ''));
    labels.add(at(i, letter + letter));
  }
  for (const [one, other] of TWINS)
    for (const [from, to] of [
      [one, other],
      [other, one],
    ] as const) {
      const i = label.indexOf(from);
      if (i >= 0) labels.add(at(i, to, from.length));
    }
  for (let i = 0; i < label.length; i += 1)
    for (const key of NEIGHBOURS[label[i] as string] ?? '') labels.add(at(i, key));
  labels.add(label.replaceAll('-', ''));
  for (let i = 1; i < label.length; i += 1) labels.add(at(i, '-', 0));
  labels.delete(label);
  // Hyphens in third and fourth place are kept for A-labels (RFC 5891 section 4.2.3.1).
  const isLabel = (text: string) =>
    /^[a-z0-9](?:[a-z0-9-]{0,61}[a-z0-9])?$/.test(text) && text.length > 1 && text.slice(2, 4) !== '--';
  return [
    ...OTHER_ENDINGS.filter((other) => other !== ending).map((other) => `${label}.${other}`),
    ...[...labels].filter(isLabel).map((text) => `${text}.${ending}`),
  ];
}
