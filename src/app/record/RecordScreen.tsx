'use client';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { type Refusal, refuse } from '@/core/refusal';
import { Button } from '@/ui/controls/Button';
import { Field } from '@/ui/controls/Field';
import { Form, textOf } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { Page, Section } from '@/ui/text/Sheet';
import { Progress } from '@/ui/text/States';
import { namesWords } from '@/ui/text/words';
import type { CheckProgress } from '@/usecases/records/check';
import type { DifferingName } from '@/usecases/records/compare';
import type { WatchRow } from '@/usecases/records/watch';
import { checkNamesAction } from '../acts/check/actions';
import { useTitle } from '../frame/Frame';
import { useLedger } from '../frame/LedgerProvider';
import { checkProgressAction } from './actions';
import { Differences } from './Differences';
import { ListPart } from './ListPart';
import { PastePart } from './PastePart';
import { WatchPart } from './WatchPart';

const LOOK_AGAIN_MS = 900;

/** Is it still true? What the registration record says against the ledger, names of others, and what is watched. */
export function RecordScreen({
  differing,
  progress: first,
  watched,
}: {
  differing: readonly DifferingName[];
  progress: CheckProgress;
  watched: readonly WatchRow[];
}) {
  const router = useRouter();
  const { worker, meta, reload } = useLedger();
  const [progress, setProgress] = useState(first);
  const [total, setTotal] = useState(0);
  useTitle('Registration record', 'is it still true?');

  const isChecking = total > 0 && progress.waiting > 0;
  useEffect(() => {
    if (!isChecking) return;
    const timer = setInterval(() => void checkProgressAction().then(setProgress), LOOK_AGAIN_MS);
    return () => clearInterval(timer);
  }, [isChecking]);
  const isDone = total > 0 && progress.waiting === 0;
  useEffect(() => {
    if (!isDone) return;
    setTotal(0);
    void reload();
    router.refresh();
  }, [isDone, reload, router]);

  const checkAll = async () => {
    if (!worker) return;
    const names = await worker.everyName();
    setProgress(await checkNamesAction(names));
    setTotal(names.length);
  };

  return (
    <Page>
      <Section>
        <LookUpForm />
        <Actions>
          <Button data-kind="primary" isDisabled={!meta || isChecking} onPress={() => void checkAll()}>
            Check {meta ? namesWords(meta.names) : 'every name'} now
          </Button>
        </Actions>
        {isChecking && <Progress done={total - progress.waiting} total={total} text="Asking the registries" />}
        {progress.problems.length > 0 && (
          <details>
            <summary className="caution">
              {namesWords(progress.problems.length)} could not be checked yet, and will be asked for again
            </summary>
            <ul>
              {progress.problems.map(({ ascii, problem }) => (
                <li key={ascii}>
                  <span className="name">{ascii}</span> <span className="soft">{problem}</span>
                </li>
              ))}
            </ul>
          </details>
        )}
      </Section>
      <Differences names={differing} progress={progress} />
      <WatchPart watched={watched} />
      <ListPart />
      <PastePart />
    </Page>
  );
}

/** Any name, one's own or not. */
function LookUpForm() {
  const router = useRouter();
  const [refused, setRefused] = useState<Refusal | null>(null);
  const lookUp = (form: FormData) => {
    const wanted = textOf(form, 'name');
    if (wanted === '') setRefused(refuse('name-missing', 'Write a name, like kelpkiln.com.', 'name'));
    else router.push(`/record/${encodeURIComponent(wanted)}`);
  };
  return (
    <Form aria-label="Look up any name" refused={refused} onSubmit={lookUp}>
      <Actions style={{ alignItems: 'end' }}>
        <Field name="name" label="Look up any name" placeholder="kelpkiln.com" />
        <Button type="submit">Look it up</Button>
      </Actions>
    </Form>
  );
}
