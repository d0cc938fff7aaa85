'use client';
import type { TakenCell } from '@/core/acquiring';
import { isRefusal } from '@/core/refusal';
import { startOfDay } from '@/core/time';
import { Button } from '@/ui/controls/Button';
import { Link } from '@/ui/controls/Link';
import { Actions } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import { Ruled } from '@/ui/text/Sheet';
import { type DayStyle, dayWords, termEndWords } from '@/ui/text/words';
import type { CandidateDetail } from '@/usecases/acquiring/detail';
import { useLedger } from '../frame/LedgerProvider';
import { lookAtUseAction, watchCandidateAction } from './actions';

interface TakenPartProps {
  readonly detail: CandidateDetail;
  readonly taken: TakenCell | undefined;
  readonly onChanged: () => Promise<void>;
}

/** A name of somebody else: who holds it, when it may come free, whether it is in use, and what can be done. */
export function TakenPart({ detail, taken, onChanged }: TakenPartProps) {
  const { style } = useLedger();
  const { takenBy, use, ascii, unicode, isWatched, listed } = detail;
  const act = async <T,>(asked: Promise<T>, words: string) => {
    const answer = await asked;
    report(isRefusal(answer) ? { text: answer.message, problem: true } : { text: words });
    await onChanged();
  };
  const lines: readonly (readonly [string, string | null])[] = [
    ['free at the earliest', taken?.earliest ? dayWords(taken.earliest, style) : null],
    ['at the latest', taken?.latest ? dayWords(taken.latest, style) : null],
    ['holder', takenBy?.holder ?? (takenBy ? 'not shown' : null)],
    ['reached by', takenBy?.mail ?? takenBy?.form ?? null],
    ['registrar', takenBy?.registrar ?? null],
    ['registered', takenBy?.registered ? dayWords(takenBy.registered, style) : null],
    ['term ends', takenBy?.expires ? termEndWords(takenBy.expires, style) : null],
    ['listed as free', listed ? listedWords(listed, style) : null],
    ['in use', use ? inUseWords(use) : null],
  ];
  return (
    <>
      <Ruled aria-label={`What is known of ${unicode}`}>
        <tbody>
          {lines.map(([what, value]) =>
            value === null ? null : (
              <tr key={what}>
                <td className="soft">{what}</td>
                <td>{value}</td>
              </tr>
            ),
          )}
        </tbody>
      </Ruled>
      {takenBy && <p className="soft">As its record stood on {dayWords(takenBy.seenAt, style)}.</p>}
      {use && <p className="soft">Looked at on {dayWords(use.lookedAt, style)}.</p>}
      <Actions>
        {isWatched ? (
          <span className="soft">It is watched.</span>
        ) : (
          <Button onPress={() => void act(watchCandidateAction(ascii), `${unicode} is watched.`)}>Watch it</Button>
        )}
        <Button onPress={() => void act(lookAtUseAction(ascii), 'Looked at.')}>Is it in use?</Button>
        <Link href={`/acquire/waiting?ask=${encodeURIComponent(ascii)}`}>Ask the holder</Link>
        <Link href={`/acquire/waiting?order=${encodeURIComponent(ascii)}`}>Order at its release</Link>
        <Link href={`/record/${encodeURIComponent(ascii)}`}>Its record</Link>
      </Actions>
    </>
  );
}

/** What a list says, with where it comes from and when it was taken in. */
function listedWords({ onDay, source, notedAt }: NonNullable<CandidateDetail['listed']>, style: DayStyle): string {
  const on = onDay === null ? 'without a day' : `on ${dayWords(startOfDay(onDay), style)}`;
  return `${on}, by ${source}, taken in on ${dayWords(notedAt, style)}`;
}

/** Whether a name is in use, in words; what was not to be found out is not spoken of. */
function inUseWords({ hasNameServers, site, takesMail }: NonNullable<CandidateDetail['use']>): string {
  const parts = [
    hasNameServers === null ? 'name servers not known' : hasNameServers ? 'has name servers' : 'no name servers',
    site === null ? '' : `site answers ${site}`,
    takesMail === null ? '' : takesMail ? 'takes mail' : 'takes no mail',
  ];
  return parts.filter((part) => part !== '').join(', ');
}
