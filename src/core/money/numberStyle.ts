/** How figures are written, each style by its own example. */
export const NUMBER_STYLES = ['1,234.50', '1.234,50', '1 234,50', '1’234.50'] as const;
export type NumberStyle = (typeof NUMBER_STYLES)[number];

/** Plain figures with a point: what files and other programs are written. */
export const USUAL_STYLE: NumberStyle = '1,234.50';

/** What stands between the thousands, and before the cents. */
export interface Marks {
  readonly group: string;
  readonly point: ',' | '.';
}

const MARKS: Readonly<Record<NumberStyle, Marks>> = {
  '1,234.50': { group: ',', point: '.' },
  '1.234,50': { group: '.', point: ',' },
  // A space that no line is broken at.
  '1 234,50': { group: '\u00a0', point: ',' },
  '1’234.50': { group: '’', point: '.' },
};

export function marksOf(style: NumberStyle): Marks {
  return MARKS[style];
}

/** The style of a locale (BCP 47), as far as it is one of ours: what a browser's language proposes. */
export function styleOfLocale(locale: string): NumberStyle {
  let parts: Intl.NumberFormatPart[];
  try {
    parts = new Intl.NumberFormat(locale, { minimumFractionDigits: 2 }).formatToParts(12_345.5);
  } catch {
    return USUAL_STYLE;
  }
  const of = (type: string) => parts.find((part) => part.type === type)?.value ?? '';
  const [group, point] = [of('group'), of('decimal')];
  if (point === ',') return group === '.' ? '1.234,50' : '1 234,50';
  return group === '’' || group === "'" ? '1’234.50' : USUAL_STYLE;
}
