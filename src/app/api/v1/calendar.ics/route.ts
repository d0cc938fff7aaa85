import { readFeed } from '@/usecases/calendar/feed';
import { compute } from '@/usecases/computing';
import { deps } from '@/usecases/deps';
import { answer, written } from '../../../http/problem';

/** The deadlines as an iCalendar feed, for whoever has its token; in the interface it is a file to save. */
export function GET(request: Request): Promise<Response> {
  return answer(async () => {
    const refused = await readFeed(deps(), new URL(request.url).searchParams.get('token'));
    if (refused) return refused;
    const disposition = 'inline; filename="price-steps.ics"';
    return written(await compute(deps(), 'calendar'), 'text/calendar; charset=utf-8', disposition);
  });
}
