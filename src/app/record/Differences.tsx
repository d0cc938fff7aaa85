'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import styled from 'styled-components';
import { DANGER_BANDS, type DangerBand, dangerBandOf } from '@/core/records';
import { isRefusal } from '@/core/refusal';
import { Button } from '@/ui/controls/Button';
import { Check } from '@/ui/controls/Check';
import { Link } from '@/ui/controls/Link';
import { Actions } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import { Marked } from '@/ui/text/Marked';
import { Ruled, Section } from '@/ui/text/Sheet';
import { Wide } from '@/ui/text/Wide';
import { dayWords, namesWords } from '@/ui/text/words';
import type { DifferingName } from '@/usecases/records/compare';
import { useAct } from '../acts/useAct';
import { useLedger, useLedgerChange } from '../frame/LedgerProvider';
import { namePage } from '../frame/pages';
import { dismissAction, takeOverAction } from './actions';
import { canTakeOver, differenceWords, inWords } from './differenceWords';

/** The bands of danger, as headings of the table. */
const BAND_WORDS: Readonly<Record<DangerBand, string>> = {
  'does not work': 'Site and mail do not work',
  'may be lost': 'May be lost, or is not yours any more',
  term: 'Paid for or not',
  open: 'Open to change',
};
const MOST_ROWS = 200;

interface Row {
  readonly name: DifferingName;
  readonly difference: DifferingName['differences'][number];
}

const keyOf = ({ name, difference }: Row) => `${name.nameId} ${difference.kind}`;

/** What differs between ledger and record, the most dangerous first; taken over or dismissed, one or many. */
export function Differences({ names }: { names: readonly DifferingName[] }) {
  const router = useRouter();
  const { act } = useAct();
  const { reload } = useLedger();
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

  if (rows.length === 0) return null;
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

/** Each difference by its danger: what it means, what the ledger says beside what the record says, the part that differs marked. */
function DifferencesTable({ rows, chosen, onChoose }: DifferencesTableProps) {
  const bands = DANGER_BANDS.map((band) => ({
    band,
    rows: rows.filter(({ difference }) => dangerBandOf(difference.kind) === band),
  })).filter((one) => one.rows.length > 0);
  return (
    <Wide>
      <Banded data-list aria-label="Differences">
        <colgroup>
          <col style={{ width: '20%' }} />
          <col style={{ width: '31%' }} />
          <col style={{ width: '20%' }} />
          <col style={{ width: '20%' }} />
          <col />
        </colgroup>
        <thead>
          <tr>
            <th>Name</th>
            <th>What it means</th>
            <th>Ledger</th>
            <th>Record</th>
            <th>Seen</th>
          </tr>
        </thead>
        {bands.map(({ band, rows: some }) => (
          <tbody key={band}>
            <tr>
              <th scope="rowgroup" colSpan={5} data-grave={band === 'does not work' || band === 'may be lost'}>
                {BAND_WORDS[band]}: {some.length.toLocaleString('en')}
              </th>
            </tr>
            {some.map((row) => (
              <DifferenceLine key={keyOf(row)} row={row} isChosen={chosen.has(keyOf(row))} onChoose={onChoose} />
            ))}
          </tbody>
        ))}
      </Banded>
    </Wide>
  );
}

const Banded = styled(Ruled)`
  & th[scope='rowgroup'] { padding: 16px 0 6px; color: var(--ink); font-size: 1.07rem; font-weight: 650; }
  & th[data-grave='true'] { color: var(--caution); }
  & td { overflow-wrap: anywhere; }

`;

function DifferenceLine({
  row,
  isChosen,
  onChoose,
}: { row: Row; isChosen: boolean } & Pick<DifferencesTableProps, 'onChoose'>) {
  const { style } = useLedger();
  const { name, difference } = row;
  const [ledger, record] = [inWords(difference.ledger), inWords(difference.record)];
  return (
    <tr>
      <td className="whole">
        <Check
          isSelected={isChosen}
          onChange={(on) => onChoose(keyOf(row), on)}
          aria-label={`Choose ${name.unicode}: ${difference.kind}`}
        />{' '}
        <Link href={namePage(name.ascii)} className="name">
          {name.unicode}
        </Link>
        <div className="soft">{name.account}</div>
      </td>
      <td className="sentence">{differenceWords(difference)}</td>
      <td className="sentence" data-said="ledger:">
        {ledger}
      </td>
      <td className="sentence" data-said="record:">
        <Marked text={record} other={ledger} />
      </td>
      <td className="whole">{dayWords(name.seenAt, style)}</td>
    </tr>
  );
}
