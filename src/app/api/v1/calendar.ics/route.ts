import { priceStepCalendar } from '@/usecases/calendar/calendar';
import { deps } from '@/usecases/deps';
import { answer } from '../../problem';

/** The price steps as an iCalendar feed. */
export function GET(): Promise<Response> {
  return answer(async () => {
    const headers = {
      'content-type': 'text/calendar; charset=utf-8',
      'content-disposition': 'inline; filename="price-steps.ics"',
    };
    return new Response(await priceStepCalendar(deps()), { headers });
  });
}
