import { accountDocuments } from '@/usecases/accounts/documents';
import { deps } from '@/usecases/deps';
import { answer } from '../../../http/problem';

/** Every account with its rules. */
export function GET(): Promise<Response> {
  return answer(async () => Response.json({ accounts: await accountDocuments(deps()) }));
}
