import { priceDocuments } from '@/usecases/accounts/documents';
import { deps } from '@/usecases/deps';
import { answer } from '../../../http/problem';

/** Every price of every account. */
export function GET(): Promise<Response> {
  return answer(async () => Response.json({ prices: await priceDocuments(deps()) }));
}
