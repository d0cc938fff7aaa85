import { type Amount, parseDecimal } from '@/core/money';
import { type Refusal, refuse } from '@/core/refusal';

/** A price as a plain amount above nothing; `null` where nothing is written. */
export function readPrice(written: string | undefined, currency: string, field: string): Amount | null | Refusal {
  if (written === undefined || written.trim() === '') return null;
  const price = parseDecimal(written, currency);
  return price !== null && price.minor > 0
    ? price
    : refuse('price-invalid', 'Write the price as a plain amount above nothing, like 1200.', field);
}
