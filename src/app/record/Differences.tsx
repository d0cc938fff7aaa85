'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { DifferenceKind } from '@/core/records';
import { isRefusal } from '@/core/refusal';
import { Button } from '@/ui/controls/Button';
import { Check } from '@/ui/controls/Check';
import { Actions } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import { Ruled, Section } from '@/ui/text/Sheet';
import { Empty } from '@/ui/text/States';
import { Wide } from '@/ui/text/Wide';
import { type DayStyle, dayWords, namesWords } from '@/ui/text/words';
import type { CheckProgress } from '@/usecases/records/check';
import type { DifferingName } from '@/usecases/records/compare';
import { useAct } from '../acts/useAct';
import { useLedger, useLedgerChange } from '../frame/LedgerProvider';
import { namePage } from '../frame/pages';
import { dismissAction, takeOverAction } from './actions';
import { canTakeOver, differenceWords } from './differenceWords';

const DANGEROUS = new Set<DifferenceKind>([
  'not registered',
  'in redemption',
  'not at that registrar',
  'holder changed',
  'transfer pending',
]);
const MOST_ROWS = 200;

interface Row {
  readonly name: DifferingName;
  readonly difference: DifferingName['differences'][number];
}

const keyOf = ({ name, difference }: Row) => `${name.nameId} ${difference.kind}`;

/** What differs between ledger and record, the most dangerous first; taken over or dismissed, one or many. */
export function Differences({ names, progress }: { names: readonly DifferingName[]; progress: CheckProgress }) {
  const router = useRouter();
  const { act } = useAct();
  const { style, reload } = useLedger();
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const rows = names.flatMap((name) => name.differences.map((difference) => ({ name, difference })));
  const picked = rows.filter((row) => chosen.has(keyOf(row)));
  const asked = picked.map(({ name, difference }) => ({ nameId: name.nameId, kind: difference.kind }));

  // What differs is drawn by the server, and follows every change of the ledger: an undo too.
  useLedgerChange(router.refresh);
  const settled = () => setChosen(new Set());
  const takeOver = async () => {
    if (await act(() => takeOverAction({ differences: asked }))) settled();
  };
  const dismiss = async () => {
    const answer = await dismissAction({ differences: asked });
    if (isRefusal(answer)) report({ text: answer.message, problem: true });
    else report({ text: `${answer} dismissed. They come back when the record says something else.` });
    settled();
    await reload();
  };

  if (rows.length === 0)
    return (
      <Empty
        title={progress.asked === 0 ? 'No record has been read yet.' : 'Nothing differs.'}
        text={askedWords(progress, style)}
      />
    );
  return (
    <Section aria-label="Differences">
      <h2>
        {namesWords(names.length)} {names.length === 1 ? 'differs' : 'differ'}
      </h2>
      <Actions>
        <Check
          isSelected={picked.length === rows.length}
          isIndeterminate={picked.length > 0 && picked.length < rows.length}
          onChange={(all) => setChosen(new Set(all ? rows.map(keyOf) : []))}
        >
          All
        </Check>
        <Button isDisabled={!picked.some(({ difference }) => canTakeOver(difference))} onPress={() => void takeOver()}>
          Take {picked.length} over into the ledger
        </Button>
        <Button isDisabled={picked.length === 0} onPress={() => void dismiss()}>
          Dismiss {picked.length}
        </Button>
      </Actions>
      <DifferencesTable
        rows={rows.slice(0, MOST_ROWS)}
        chosen={chosen}
        onChoose={(key, on) => setChosen(new Set(on ? [...chosen, key] : [...chosen].filter((one) => one !== key)))}
      />
      {rows.length > MOST_ROWS && (
        <p className="soft">
          The first {MOST_ROWS} of {rows.length}.
        </p>
      )}
    </Section>
  );
}

interface DifferencesTableProps {
  readonly rows: readonly Row[];
  readonly chosen: ReadonlySet<string>;
  readonly onChoose: (key: string, isChosen: boolean) => void;
}

/** Each difference with its account and the day on which it was seen. */
function DifferencesTable({ rows, chosen, onChoose }: DifferencesTableProps) {
  const { style } = useLedger();
  return (
    <Wide>
      <Ruled aria-label="Differences">
        <thead>
          <tr>
            <th>Name</th>
            <th>What differs</th>
            <th>Account</th>
            <th>Seen</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => {
            const { name, difference } = row;
            return (
              <tr key={keyOf(row)}>
                <td className="whole">
                  <Check
                    isSelected={chosen.has(keyOf(row))}
                    onChange={(on) => onChoose(keyOf(row), on)}
                    aria-label={`Choose ${name.unicode}: ${difference.kind}`}
                  />{' '}
                  <Link href={namePage(name.ascii)} className="name">
                    {name.unicode}
                  </Link>
                </td>
                <td className={DANGEROUS.has(difference.kind) ? 'caution' : undefined}>
                  {differenceWords(difference)}
                </td>
                <td>{name.account}</td>
                <td>{dayWords(name.seenAt, style)}</td>
              </tr>
            );
          })}
        </tbody>
      </Ruled>
    </Wide>
  );
}

/** Of how many names the record was read, and since when: only that says what "nothing differs" is worth. */
function askedWords({ names, asked, oldestAt }: CheckProgress, style: DayStyle): string {
  if (asked === 0 || oldestAt === null)
    return names === 0
      ? 'The ledger is empty: there is nothing to compare.'
      : 'Whether the ledger agrees with the registration record is not known before the registries are asked.';
  const all = asked >= names ? `${namesWords(asked)} asked about` : `${namesWords(asked)} of ${names} asked about`;
  return `${all}, the longest ago on ${dayWords(oldestAt, style)}.${asked < names ? ' Of the others nothing is known.' : ''}`;
}
