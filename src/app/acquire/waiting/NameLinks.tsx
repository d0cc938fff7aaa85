'use client';
import { Button } from '@/ui/controls/Button';
import { Link } from '@/ui/controls/Link';
import { Actions } from '@/ui/overlay/Dialog';
import { useSave } from '../../acts/useSave';
import { watchCandidateAction } from '../actions';

/** What can be done about a name of somebody else: look, watch, ask, order. */
export function NameLinks({ ascii, unicode }: { ascii: string; unicode: string }) {
  const { ask } = useSave();
  const name = encodeURIComponent(ascii);
  return (
    <Actions>
      <Link href={`/record/${name}`} aria-label={`The record of ${unicode}`}>
        Record
      </Link>
      <Button
        data-kind="plain"
        aria-label={`Watch ${unicode}`}
        onPress={() => void ask(watchCandidateAction(ascii), `${unicode} is watched.`)}
      >
        Watch
      </Button>
      <Link href={`/acquire/waiting?ask=${name}`} aria-label={`Ask the holder of ${unicode}`}>
        Ask
      </Link>
      <Link href={`/acquire/waiting?order=${name}`} aria-label={`Order ${unicode} at its release`}>
        Order
      </Link>
    </Actions>
  );
}
