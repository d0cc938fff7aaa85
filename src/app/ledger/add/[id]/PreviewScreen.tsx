'use client';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useRef, useState } from 'react';
import { isRefusal, type Refusal } from '@/core/refusal';
import { unusedColumns } from '@/formats/portfolio/columns';
import { Button, ButtonLink } from '@/ui/controls/Button';
import { Actions } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import { Notice, Page, Section } from '@/ui/text/Sheet';
import { Progress } from '@/ui/text/States';
import { namesWords } from '@/ui/text/words';
import type { ImportSummary } from '@/usecases/imports/preview';
import type { ImportOptions } from '@/usecases/imports/readImport';
import { useAct } from '../../../acts/useAct';
import { useTitle } from '../../../frame/Frame';
import { useLedger } from '../../../frame/LedgerProvider';
import { dropImportAction, importSummaryAction, readImportAction, writeImportAction } from '../actions';
import { MappingTable } from './MappingTable';
import { OutcomeRows } from './OutcomeRows';

interface PreviewScreenProps {
  readonly first: ImportSummary;
  readonly accounts: readonly { readonly id: number; readonly label: string }[];
}

const LOOK_AGAIN_MS = 400;

/** What a list would do to the ledger: how it is read, what is new, changed, unchanged, refused or missing, and then writing it. */
export function PreviewScreen({ first, accounts }: PreviewScreenProps) {
  const { summary, question, busy, took, read, write, takeBack } = useImport(first);
  // Stays as it is while the list is read anew.
  const [isMappingOpen, setMappingOpen] = useState(false);
  const { row, counts } = summary;
  const { id } = row;
  useTitle('Add names', row.source === 'pasted' ? 'pasted' : row.source);

  if (row.status === 'done') return <Written summary={summary} onTakeBack={takeBack} />;
  return (
    <Page>
      {row.status === 'failed' && (
        <Notice data-kind="caution">
          This list could not be read to its end, and nothing of it was written. Read it again.
        </Notice>
      )}
      {question && (
        <Notice data-kind="caution" role="alert">
          {question}
        </Notice>
      )}
      <MappingTable
        options={row.options}
        isOpen={isMappingOpen}
        onOpen={setMappingOpen}
        accounts={accounts}
        onChange={(options) => void read(options)}
        privateEndings={counts.refused.rows > 0}
      />
      {row.status === 'reading' && <Progress done={row.rowsDone} total={row.rowsTotal} text="Reading the list" />}
      {row.status === 'ready' && (
        <>
          <WritePart summary={summary} isBusy={busy} onWrite={() => void write()} />
          {(['refused', 'conflict', 'changed', 'missing', 'new', 'unchanged'] as const).map((outcome) => (
            <OutcomeRows
              key={`${outcome} ${counts[outcome].rows}`}
              id={id}
              outcome={outcome}
              count={counts[outcome]}
              accounts={accounts}
              mapping={row.options.mapping}
              onSummary={took}
            />
          ))}
        </>
      )}
    </Page>
  );
}

interface WritePartProps {
  readonly summary: ImportSummary;
  readonly isBusy: boolean;
  readonly onWrite: () => void;
}

/** What the list would do in numbers, and writing it, or leaving it. */
function WritePart({ summary: { row, counts }, isBusy, onWrite }: WritePartProps) {
  const router = useRouter();
  const taken = counts.new.taken + counts.changed.taken + counts.conflict.taken + counts.missing.taken;
  const unused = unusedColumns(row.options.mapping);
  const leftOut = row.options.leftOut ?? 0;
  return (
    <Section>
      <h2>
        {namesWords(counts.new.rows)} new, {counts.changed.rows} changed, {counts.unchanged.rows} unchanged,{' '}
        {counts.refused.rows} refused
        {counts.conflict.rows > 0 && `, ${counts.conflict.rows} held elsewhere`}
        {row.options.fullList ? `, ${counts.missing.rows} no longer there` : ''}
      </h2>
      {unused.length > 0 && (
        <p>
          Not used: <b>{unused.join(', ')}</b>. Open how it is read to use more of the list.
        </p>
      )}
      {leftOut > 0 && (
        <p className="soft">
          {leftOut === 1 ? 'One word' : `${leftOut.toLocaleString('en')} words`} around the names left out.
        </p>
      )}
      <Actions>
        <Button
          data-kind="primary"
          onPress={onWrite}
          isDisabled={isBusy || (taken === 0 && counts.unchanged.rows === 0)}
        >
          {isBusy ? 'Writing…' : taken === 0 ? 'Nothing to add: close' : `Write ${namesWords(taken)}`}
        </Button>
        <Button
          onPress={async () => {
            await dropImportAction(row.id);
            router.push('/ledger/add');
          }}
        >
          Leave it
        </Button>
        {counts.refused.rows > 0 && (
          <a href={`/ledger/add/${row.id}/refused`} download>
            Refused rows as CSV
          </a>
        )}
      </Actions>
    </Section>
  );
}

/** What came of a list: how much was written, and taking it back. */
function Written({
  summary: { row, counts },
  onTakeBack,
}: {
  summary: ImportSummary;
  onTakeBack: (batchId: number) => Promise<void>;
}) {
  const { written } = row.options;
  const { batchId } = row;
  return (
    <Page>
      <Section>
        <h2>{row.undone ? 'Written, then taken back' : 'Written'}</h2>
        {written && (
          <p>
            {namesWords(written.added)} added, {written.changed} changed, {written.gone} no longer there.{' '}
            {written.entries} prices paid entered, {written.prices} renewal prices learnt.
            {row.undone &&
              ' All of it was taken back: names that were added have left the ledger and stay in the books.'}
          </p>
        )}
        <Actions>
          <ButtonLink href="/ledger" data-kind="primary">
            To the ledger
          </ButtonLink>
          <ButtonLink href="/ledger/add">Add more</ButtonLink>
          {batchId !== null && !row.undone && written && written.added + written.changed + written.gone > 0 && (
            <Button onPress={() => void onTakeBack(batchId)}>Take it back</Button>
          )}
          {counts.refused.rows > 0 && (
            <a href={`/ledger/add/${row.id}/refused`} download>
              {counts.refused.rows} refused rows as CSV
            </a>
          )}
        </Actions>
      </Section>
    </Page>
  );
}

/** What a person decides about a list; what was found in it the program knows. */
function askedOf({ mapping, accountId, fullList, allowPrivateEndings, accountLabel, sheet }: ImportOptions) {
  return { mapping, accountId, fullList, allowPrivateEndings, accountLabel, ...(sheet ? { sheet } : {}) };
}

/** An import as it stands, looked at again while it goes on, and what is done with it. */
function useImport(first: ImportSummary) {
  const { reload } = useLedger();
  const { undo } = useAct();
  const [summary, setSummary] = useState(first);
  const [question, setQuestion] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const begun = useRef(false);
  const { row } = summary;
  const { id } = row;

  const took = useCallback((answer: ImportSummary | Refusal) => {
    if (isRefusal(answer)) report({ text: answer.message, problem: true });
    else setSummary(answer);
  }, []);

  const read = useCallback(
    async (options: ImportOptions) => {
      setQuestion(null);
      setSummary((now) => ({ ...now, row: { ...now.row, options, status: 'reading' } }));
      const answer = await readImportAction(id, askedOf(options));
      if (isRefusal(answer)) {
        setQuestion(answer.message);
        setSummary((now) => ({ ...now, row: { ...now.row, options, status: 'asking' } }));
      } else setSummary(answer);
    },
    [id],
  );

  // The page may come from the browser's memory, so the import is looked at anew; a new one is read as proposed at once.
  useEffect(() => {
    if (begun.current) return;
    begun.current = true;
    void importSummaryAction(id).then((answer) => {
      if (isRefusal(answer)) return;
      setSummary(answer);
      if (answer.row.status === 'asking') void read(answer.row.options);
    });
  }, [id, read]);

  useEffect(() => {
    if (row.status !== 'reading' && row.status !== 'writing') return;
    const timer = setInterval(() => {
      void importSummaryAction(id).then((answer) => {
        if (!isRefusal(answer) && answer.row.status === row.status)
          setSummary((now) => ({ ...now, row: { ...now.row, rowsDone: answer.row.rowsDone } }));
        else if (!isRefusal(answer) && answer.row.status !== 'asking') setSummary(answer);
      });
    }, LOOK_AGAIN_MS);
    return () => clearInterval(timer);
  }, [id, row.status]);

  const write = async () => {
    setBusy(true);
    const answer = await writeImportAction(id);
    setBusy(false);
    if (isRefusal(answer)) {
      report({ text: answer.message, problem: true });
      return;
    }
    await reload();
    took(await importSummaryAction(id));
  };
  const takeBack = async (batchId: number) => {
    if (!(await undo(batchId))) return;
    took(await importSummaryAction(id));
  };
  return { summary, question, busy, took, read, write, takeBack };
}
