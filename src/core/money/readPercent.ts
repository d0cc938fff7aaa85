import { type Refusal, refuse } from '../refusal';

const PERCENT = /^([-−]?)(\d{0,4})(?:[.,](\d{1,4}))?\s*%?$/u;

/** Reads a percentage as people write it, `7`, `7.5`, `7,5 %`, from `least` to `most`: nothing groups so small a figure. */
export function readPercent(text: string, least = 0, most = 100): number | Refusal {
  const match = PERCENT.exec(text.trim());
  const size = match && /\d/.test(text) ? Number(`${match[2] || '0'}.${match[3] ?? '0'}`) : Number.NaN;
  const percent = match?.[1] ? -size || 0 : size;
  return percent >= least && percent <= most
    ? percent
    : refuse(
        'percent-not-read',
        `“${text.trim().slice(0, 40)}” is not a percentage from ${least} to ${most}. Write it like 7.5.`,
      );
}
