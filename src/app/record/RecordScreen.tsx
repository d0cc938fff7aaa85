'use client';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { dangerBandOf } from '@/core/records';
import { type Refusal, refuse } from '@/core/refusal';
import { Button } from '@/ui/controls/Button';
import { Field } from '@/ui/controls/Field';
import { Form, textOf } from '@/ui/controls/Form';
import { Link } from '@/ui/controls/Link';
import { Actions } from '@/ui/overlay/Dialog';
import { Answer, Head, Page, Section } from '@/ui/text/Sheet';
import { Progress } from '@/ui/text/States';
import { countOf } from '@/ui/text/todayWords';
import { type DayStyle, dayWords, namesWords } from '@/ui/text/words';
import type { CheckProgress } from '@/usecases/records/check';
import type { DifferingName } from '@/usecases/records/compare';
import type { WatchRow } from '@/usecases/records/watch';
import { checkNamesAction } from '../acts/check/actions';
import { toldRefused } from '../acts/toldRefused';
import { useLedger } from '../frame/LedgerProvider';
import { useTitle } from '../frame/PageTitle';
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
  mails,
}: {
  differing: readonly DifferingName[];
  progress: CheckProgress;
  watched: readonly WatchRow[];
  /** How many mails tell something that nobody has decided about. */
  mails: number;
}) {
  const router = useRouter();
  const { worker, meta, reload } = useLedger();
  const [progress, setProgress] = useState(first);
  const [total, setTotal] = useState(first.waiting > 0 ? Math.max(first.names, first.waiting) : 0);
  useTitle('Registration record', 'is it still true?');

  // A check goes on without this page: who comes back finds it where it is.
  const isChecking = progress.waiting > 0;
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
    const begun = await checkNamesAction(names);
    if (toldRefused(begun)) return;
    setProgress(begun);
    setTotal(names.length);
  };

  return (
    <Page>
      <RecordAnswer differing={differing} progress={progress} mails={mails} />
      <Section>
        <Actions style={{ alignItems: 'end', justifyContent: 'space-between' }}>
          <Button data-kind="primary" isDisabled={!meta || isChecking} onPress={() => void checkAll()}>
            Check {meta ? namesWords(meta.names) : 'every name'} now
          </Button>
          <LookUpForm />
        </Actions>
        {isChecking && (
          <Progress done={total - progress.waiting} total={total} text="Asking the registries">
            {progress.recent.length > 0 && (
              <span className="soft">
                Last asked about: <span className="name">{progress.recent.join(', ')}</span>. You may leave: it goes on
                by itself.
              </span>
            )}
          </Progress>
        )}
        <NotChecked problems={progress.problems} />
      </Section>
      <Differences names={differing} />
      <WatchPart watched={watched} />
      <ListPart />
      <PastePart />
    </Page>
  );
}

/** Names that no registry has answered for yet. */
function NotChecked({ problems }: Pick<CheckProgress, 'problems'>) {
  if (problems.length === 0) return null;
  return (
    <details>
      <summary className="caution">
        {namesWords(problems.length)} could not be checked yet, and will be asked for again
      </summary>
      <ul>
        {problems.map(({ ascii, problem }) => (
          <li key={ascii}>
            <span className="name">{ascii}</span> <span className="soft">{problem}</span>
          </li>
        ))}
      </ul>
    </details>
  );
}

/** The answer: what does not work, what differs, or how little is known before anybody was asked. */
function RecordAnswer({
  differing,
  progress,
  mails,
}: {
  differing: readonly DifferingName[];
  progress: CheckProgress;
  mails: number;
}) {
  const { style } = useLedger();
  const { names, asked } = progress;
  const dead = differing.filter((name) => name.differences.some(({ kind }) => dangerBandOf(kind) === 'does not work'));
  const rest = differing.length - dead.length;
  // "Nothing differs" is said only once every name was asked about.
  const answer =
    names === 0
      ? 'The ledger is empty: there is nothing to compare.'
      : differing.length > 0
        ? `${countOf(rest, 'name differs', 'names differ')}${dead.length > 0 ? ' besides' : ''}.`
        : asked < names
          ? `Ask the registries what they know of your ${namesWords(names)}.`
          : 'Nothing differs.';
  return (
    <Head>
      <Answer>
        {dead.length > 0 && (
          <span className="caution">{countOf(dead.length, 'name does', 'names do')} not work: no site, no mail. </span>
        )}
        {(dead.length === 0 || rest > 0) && answer}
      </Answer>
      <p>
        {askedWords(progress, style)} What registrars told by mail stands under{' '}
        <Link href="/record/mails">
          {mails === 0 ? 'Mails' : `Mails: ${countOf(mails, 'tells', 'tell').toLowerCase()} something new`}
        </Link>
        .
      </p>
    </Head>
  );
}

/** Of how many names the record was read, and since when: only that says what "nothing differs" is worth. */
function askedWords({ names, asked, oldestAt }: CheckProgress, style: DayStyle): string {
  if (asked === 0 || oldestAt === null)
    return names === 0
      ? 'Names that are brought in are checked here.'
      : 'Until then nobody knows whether the ledger is true. By RDAP where an ending has it, else by WHOIS, and never faster than a server allows.';
  const all = asked >= names ? `${namesWords(asked)} asked about` : `${namesWords(asked)} of ${names} asked about`;
  return `${all}, the longest ago on ${dayWords(oldestAt, style)}.${asked < names ? ' Of the others nothing is known.' : ''}`;
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
