import { isRefusal } from '@/core/refusal';
import { dayOf } from '@/core/time';
import { makeBackup, restoreBackup } from '@/usecases/backup/backup';
import { deps } from '@/usecases/deps';
import { answer } from '../../problem';

/** The whole ledger as one JSON file. */
export function GET(): Promise<Response> {
  return answer(async () => {
    const headers = {
      'content-type': 'application/json',
      'content-disposition': `attachment; filename="name-ledger-${dayOf(deps().clock())}.json"`,
    };
    return new Response(await makeBackup(deps()), { headers });
  });
}

/** Restores a backup into an empty ledger. */
export function POST(request: Request): Promise<Response> {
  return answer(async () => {
    const restored = await restoreBackup(deps(), await request.text());
    return isRefusal(restored) ? restored : Response.json({ names: restored }, { status: 201 });
  });
}
