import { deps } from '@/usecases/deps';
import { auditExport } from '@/usecases/people/audit';
import { answer } from '../../../../http/problem';
import { streamed } from '../../../../http/streamed';

/** The whole audit as lines of JSON, oldest first: `bin/verify-audit` verifies it wherever it is kept. */
export function GET(): Promise<Response> {
  return answer(async () => {
    const headers = {
      'content-type': 'application/x-ndjson',
      'content-disposition': 'attachment; filename="name-ledger-audit.jsonl"',
    };
    return new Response(streamed(auditExport(deps())), { headers });
  });
}
