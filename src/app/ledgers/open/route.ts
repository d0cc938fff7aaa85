import { ledgerChoice } from '@/usecases/ledgers/choice';

/** Which ledger this process has open: asked while another one is being opened. */
export function GET(): Response {
  return Response.json(ledgerChoice(), { headers: { 'cache-control': 'no-store' } });
}
