'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { unusedColumns } from '@/formats/portfolio/columns';
import { Button, ButtonLink } from '@/ui/controls/Button';
import { Actions } from '@/ui/overlay/Dialog';
import { Notice, Page, Section } from '@/ui/text/Sheet';
import { Progress } from '@/ui/text/States';
import { namesWords } from '@/ui/text/words';
import type { ImportSummary } from '@/usecases/imports/preview';
import { toldRefused } from '../../../acts/toldRefused';
import { useTitle } from '../../../frame/PageTitle';
import { dropImportAction } from '../actions';
import { MappingTable } from './MappingTable';
import { OutcomeRows } from './OutcomeRows';
import { useImport } from './useImport';

interface PreviewScreenProps {
  readonly first: ImportSummary;
  readonly accounts: readonly { readonly id: number; readonly label: string }[];
}

/** What a list would do to the ledger: how it is read, what is new, changed, unchanged, refused or missing, and then writing it. */
export function PreviewScreen({ first, accounts }: PreviewScreenProps) {
  const { summary, question, isUnread, busy, took, read, write, takeBack } = useImport(first);
  // Stays as it is while the list is read anew.
  const [isMappingOpen, setMappingOpen] = useState(false);
  const { row, counts } = summary;
  const { id } = row;
  useTitle('Add names', row.source === 'pasted' ? 'pasted' : row.source);

  if (row.status === 'done') return <Written summary={summary} onTakeBack={takeBack} />;
  return (
    <Page>
      {(row.status === 'failed' || isUnread) && (
        <Notice data-kind="caution" role="alert">
          <p>
            {row.status === 'failed'
              ? 'This list could not be read to its end, and nothing of it was written.'
              : 'This list has not been read yet: the network lost what was asked.'}
          </p>
          <Actions>
            <Button onPress={() => void read(row.options)}>Read it again</Button>
          </Actions>
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
            if (!toldRefused(await dropImportAction(row.id))) router.push('/ledger/add');
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
