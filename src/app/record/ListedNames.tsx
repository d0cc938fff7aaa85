'use client';
import { isRefusal } from '@/core/refusal';
import { Button } from '@/ui/controls/Button';
import { Link } from '@/ui/controls/Link';
import { Actions } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import { formatAmount } from '@/ui/text/figures';
import { Ruled } from '@/ui/text/Sheet';
import { Wide } from '@/ui/text/Wide';
import { namesWords, termEndWords } from '@/ui/text/words';
import type { ListedName } from '@/usecases/records/list';
import { useLedger } from '../frame/LedgerProvider';
import { watchAction } from './actions';

/** Names that were looked up: free with the cheapest account, or taken until when. */
export function ListedNames({ names }: { names: readonly ListedName[] }) {
  const { style } = useLedger();
  const taken = names.flatMap(({ ascii, record }) => (record?.found ? [ascii] : []));
  const watchAll = async () => {
    const answer = await watchAction({ names: taken });
    if (isRefusal(answer)) report({ text: answer.message, problem: true });
    else report({ text: `${namesWords(answer)} watched from now on.` });
  };
  return (
    <Wide>
      <Ruled aria-label="Names looked up">
        <thead>
          <tr>
            <th>Name</th>
            <th>Status</th>
            <th>Cheapest at</th>
            <th className="figure">First year</th>
            <th className="figure">Later</th>
          </tr>
        </thead>
        <tbody>
          {names.map(({ ascii, unicode, record, offers: [best] }) => (
            <tr key={ascii} data-off={record?.found !== false}>
              <td>
                <Link href={`/record/${encodeURIComponent(ascii)}`} className="name">
                  {unicode}
                </Link>
              </td>
              <td>
                {record === null
                  ? 'no record found'
                  : record.found
                    ? `taken${record.registrar ? ` at ${record.registrar}` : ''}${record.expires ? ` until ${termEndWords(record.expires, style)}` : ''}`
                    : 'available'}
              </td>
              <td>
                {best?.account ?? ''}
                {best && best.twoYears === null && <div className="soft">not compared: a rate or price is missing</div>}
              </td>
              <td className="figure">
                {best ? formatAmount(best.first) : ''}
                {best?.condition && best.condition !== 'any term' && <div className="soft">{best.condition}</div>}
              </td>
              <td className="figure">{best?.later ? formatAmount(best.later) : ''}</td>
            </tr>
          ))}
        </tbody>
      </Ruled>
      {taken.length > 0 && (
        <Actions>
          <Button onPress={() => void watchAll()}>
            Watch {taken.length === 1 ? 'the taken one' : `the ${taken.length} taken`}
          </Button>
        </Actions>
      )}
    </Wide>
  );
}
