import { compute } from '@/usecases/computing';
import { deps } from '@/usecases/deps';
import { answer, written } from '../../http/problem';

/** A set of ideas with what is known of its names, for the table in the browser. */
export function GET(request: Request): Promise<Response> {
  return answer(async () => {
    const query = new URL(request.url).searchParams;
    const table = await compute(deps(), 'candidateTable', Number(query.get('set')), query.get('privacy') === 'yes');
    return written(table, 'application/json');
  });
}
