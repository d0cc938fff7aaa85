/** A share as percent: `2 %`, `1.9 %`, `under 0.1 %`. */
export function shareWords(share: number): string {
  const percent = share * 100;
  if (percent > 0 && percent < 0.1) return 'under 0.1 %';
  const digits = percent < 10 && Math.round(percent * 10) % 10 !== 0 ? 1 : 0;
  return `${percent.toFixed(digits)} %`;
}
