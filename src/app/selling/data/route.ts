import { compute } from '@/usecases/computing';
import { deps } from '@/usecases/deps';
import { answer, written } from '../../http/problem';

/** Every current listing, for the browser's worker. */
export function GET(): Promise<Response> {
  return answer(async () => written(await compute(deps(), 'listings'), 'application/octet-stream'));
}
