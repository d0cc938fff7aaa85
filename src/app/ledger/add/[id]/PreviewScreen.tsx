'use client';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useRef, useState } from 'react';
import { isRefusal, type Refusal } from '@/core/refusal';
import { Button, ButtonLink } from '@/ui/controls/Button';
import { Actions } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import { Notice, Page, Section } from '@/ui/text/Sheet';
import { Progress } from '@/ui/text/States';
import { namesWords } from '@/ui/text/words';
import type { ImportSummary } from '@/usecases/imports/preview';
import type { ImportOptions } from '@/usecases/imports/readImport';
import type { WrittenImport } from '@/usecases/imports/writeImport';
import { reportDone } from '../../../answers';
import { useTitle } from '../../../frame/Frame';
import { useLedger } from '../../../frame/LedgerProvider';
import { undoAction } from '../../actions';
import { dropImportAction, importSummaryAction, readImportAction, writeImportAction } from '../actions';
import { MappingTable } from './MappingTable';
import { OutcomeRows } from './OutcomeRows';

interface PreviewScreenProps {
  readonly first: ImportSummary;
  readonly sample: readonly (readonly string[])[];
  readonly accounts: readonly { readonly id: number; readonly label: string }[];
}

const LOOK_AGAIN_MS = 400;

/** What a list would do to the ledger: how it is read, what is new, changed, unchanged, refused or missing, and then writing it. */
export function PreviewScreen({ first, sample, accounts }: PreviewScreenProps) {
  const router = useRouter();
  const { reload } = useLedger();
  const [summary, setSummary] = useState(first);
  const [question, setQuestion] = useState<string | null>(null);
  const [written, setWritten] = useState<WrittenImport | null>(null);
  const [busy, setBusy] = useState(false);
  const begun = useRef(false);
  const { row, counts } = summary;
  const { id } = row;
  useTitle('Add names', row.source === 'pasted' ? 'pasted' : row.source);

  const took = useCallback((answer: ImportSummary | Refusal) => {
    if (isRefusal(answer)) report({ text: answer.message, problem: true });
    else setSummary(answer);
  }, []);

  const read = useCallback(
    async (options: ImportOptions) => {
      setQuestion(null);
      setSummary((now) => ({ ...now, row: { ...now.row, options, status: 'reading' } }));
      const answer = await readImportAction(id, options);
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
    setWritten(answer);
    await reload();
    const undo = async (batchId: number) => {
      if (reportDone(await undoAction(batchId), null)) await reload();
    };
    const changed = answer.added + answer.changed + answer.gone;
    reportDone({ batchId: answer.batchId, changed, summary: `${namesWords(changed)} written` }, undo);
  };

  if (written || row.status === 'done') return <Summary written={written} refused={counts.refused.rows} id={id} />;
  if (row.status === 'reading') return <Progress done={row.rowsDone} total={row.rowsTotal} text="Reading the list" />;
  const taken = counts.new.taken + counts.changed.taken + counts.missing.taken;
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
        sample={sample}
        accounts={accounts}
        onChange={(options) => void read(options)}
        privateEndings={counts.refused.rows > 0}
      />
      {row.status === 'ready' && (
        <>
          <Section>
            <h2>
              {namesWords(counts.new.rows)} new, {counts.changed.rows} changed, {counts.unchanged.rows} unchanged,{' '}
              {counts.refused.rows} refused
              {row.options.fullList ? `, ${counts.missing.rows} no longer there` : ''}
            </h2>
            <Actions>
              <Button
                data-kind="primary"
                onPress={() => void write()}
                isDisabled={busy || (taken === 0 && counts.unchanged.rows === 0)}
              >
                {busy ? 'Writing…' : taken === 0 ? 'Nothing to add: close' : `Write ${namesWords(taken)}`}
              </Button>
              <Button
                onPress={async () => {
                  await dropImportAction(id);
                  router.push('/ledger/add');
                }}
              >
                Leave it
              </Button>
              {counts.refused.rows > 0 && (
                <a href={`/ledger/add/${id}/refused`} download>
                  Refused rows as CSV
                </a>
              )}
            </Actions>
          </Section>
          {(['refused', 'changed', 'missing', 'new', 'unchanged'] as const).map((outcome) => (
            <OutcomeRows
              key={`${outcome} ${counts[outcome].rows}`}
              id={id}
              outcome={outcome}
              count={counts[outcome]}
              accounts={accounts}
              onSummary={took}
            />
          ))}
        </>
      )}
    </Page>
  );
}

function Summary({ written, refused, id }: { written: WrittenImport | null; refused: number; id: string }) {
  return (
    <Page>
      <Section>
        <h2>Written</h2>
        {written && (
          <p>
            {namesWords(written.added)} added, {written.changed} changed, {written.gone} no longer there.{' '}
            {written.entries} prices paid entered, {written.prices} renewal prices learnt.
          </p>
        )}
        <Actions>
          <ButtonLink href="/ledger" data-kind="primary">
            To the ledger
          </ButtonLink>
          <ButtonLink href="/ledger/add">Add more</ButtonLink>
          {refused > 0 && (
            <a href={`/ledger/add/${id}/refused`} download>
              {refused} refused rows as CSV
            </a>
          )}
        </Actions>
      </Section>
    </Page>
  );
}
