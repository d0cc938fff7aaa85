import { compute } from '@/usecases/computing';
import { deps } from '@/usecases/deps';
import { answer, written } from '../../../http/problem';

/** The calendar as a file to save, for whoever is in the interface already. */
export function GET(): Promise<Response> {
  const disposition = 'attachment; filename="price-steps.ics"';
  return answer(async () => written(await compute(deps(), 'calendar'), 'text/calendar; charset=utf-8', disposition));
}
