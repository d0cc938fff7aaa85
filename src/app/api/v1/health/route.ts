import { deps } from '@/usecases/deps';
import { ledgerRevision } from '@/usecases/names/ledger';

/** Answers once the program can reach its database. */
export async function GET(): Promise<Response> {
  return Response.json({ revision: await ledgerRevision(deps()) });
}
