import { deps } from '@/usecases/deps';
import { policies } from '@/usecases/policies/policies';
import { answer } from '../../../http/problem';

/** The lifecycle rules of every ending, and the yearly registry fee. */
export function GET(): Promise<Response> {
  return answer(async () => Response.json(await policies(deps())));
}
