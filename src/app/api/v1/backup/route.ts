import { isRefusal } from '@/core/refusal';
import { dayOf } from '@/core/time';
import { makeBackup, restoreBackup } from '@/usecases/backup/backup';
import { deps } from '@/usecases/deps';
import { LARGEST_BACKUP } from '@/usecases/limits';
import { BodyTooLarge, limitedBody } from '../../../http/body';
import { answer } from '../../../http/problem';
import { streamed } from '../../../http/streamed';

/** The whole ledger as one JSON file, sent as it is read. */
export function GET(): Promise<Response> {
  return answer(async () => {
    const backup = await makeBackup(deps());
    if (isRefusal(backup)) return backup;
    const headers = {
      'content-type': 'application/json',
      'content-disposition': `attachment; filename="name-ledger-${dayOf(deps().clock())}.json"`,
    };
    return new Response(streamed(backup), { headers });
  });
}

/** Restores a backup into an empty ledger, as it comes in. */
export function POST(request: Request): Promise<Response> {
  return answer(async () => {
    try {
      const restored = await restoreBackup(deps(), limitedBody(request, LARGEST_BACKUP));
      return isRefusal(restored) ? restored : Response.json({ names: restored }, { status: 201 });
    } catch (error) {
      if (error instanceof BodyTooLarge) return error.refusal;
      throw error;
    }
  });
}
