'use client';
import { isRefusal } from '@/core/refusal';
import { Button } from '@/ui/controls/Button';
import { report } from '@/ui/overlay/Toasts';
import { namesWords } from '@/ui/text/words';
import type { CandidateDetail, Neighbour } from '@/usecases/acquiring/detail';
import { useBusy } from '../acts/useBusy';
import { KIND_WORDS } from './acquireWords';
import { askNearAction } from './actions';

/** Names that are easily taken for it and are taken, and the same word under other endings. */
export function NeighboursPart({ detail, onChanged }: { detail: CandidateDetail; onChanged: () => Promise<void> }) {
  const [isBusy, during] = useBusy();
  const askNear = async () => {
    const answer = await during(askNearAction(detail.ascii));
    if (isRefusal(answer)) report({ text: answer.message, problem: true });
    await onChanged();
  };
  const others = detail.others.filter(({ kind }) => kind === 'taken' || kind === 'ours');
  return (
    <div>
      {detail.near.length > 0 && (
        <>
          <h2>Near it, taken</h2>
          <Names names={detail.near} />
        </>
      )}
      {detail.nearNotAsked > 0 && (
        <Button data-kind="plain" isDisabled={isBusy} onPress={() => void askNear()}>
          Ask for {namesWords(detail.nearNotAsked)} spelt nearly so
        </Button>
      )}
      {others.length > 0 && (
        <>
          <h2>Under other endings</h2>
          <Names names={others} />
        </>
      )}
    </div>
  );
}

function Names({ names }: { names: readonly Neighbour[] }) {
  return (
    <ul>
      {names.slice(0, 30).map(({ ascii, kind, holder }) => (
        <li key={ascii}>
          <span className="name">{ascii}</span>{' '}
          <span className="soft">{kind === 'ours' ? 'your own' : (holder ?? KIND_WORDS[kind])}</span>
        </li>
      ))}
    </ul>
  );
}
