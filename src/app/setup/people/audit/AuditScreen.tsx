'use client';
import { Link } from '@/ui/controls/Link';
import { Actions } from '@/ui/overlay/Dialog';
import { Answer, Head, Notice, Page, Ruled, Section } from '@/ui/text/Sheet';
import { Wide } from '@/ui/text/Wide';
import { hourWords } from '@/ui/text/words';
import type { AuditTold, ChainLooked } from '@/usecases/people/audit';
import { useLedger } from '../../../frame/LedgerProvider';
import { useTitle } from '../../../frame/PageTitle';
import { auditWords } from './auditWords';

/** Who did what, the newest first, and whether every line follows from the one before it. */
export function AuditScreen({ lines, looked }: { lines: readonly AuditTold[]; looked: ChainLooked }) {
  useTitle('Who did what');
  const { style } = useLedger();
  const last = lines.at(-1);
  return (
    <Page>
      <Head>
        <Answer>
          {looked.brokenAt !== null
            ? `Line ${looked.brokenAt} does not follow from the one before it.`
            : looked.lines === 0
              ? 'Nothing stands here yet.'
              : `${looked.lines === 1 ? 'The one line says' : `All ${looked.lines} lines say`} what was written.`}
        </Answer>
        <p>
          Each line holds the hash of the one before it. Note the last hash somewhere else: it shows whether lines were
          cut off. <code>bin/verify-audit</code> verifies a saved file by itself.
        </p>
      </Head>
      {looked.brokenAt !== null && (
        <Notice data-kind="caution" role="alert">
          That line, or one before it, was changed or taken out behind the program’s back.
        </Notice>
      )}
      {looked.lines > 0 && (
        <p>
          Last hash: <code>{looked.head}</code>
        </p>
      )}
      <Actions>
        <a href="/api/v1/audit/export" download>
          Save all lines
        </a>
      </Actions>
      {lines.length > 0 && (
        <Section aria-label="Lines">
          <Wide>
            <Ruled data-list aria-label="Who did what">
              <thead>
                <tr>
                  <th className="figure" style={{ width: 60 }}>
                    Line
                  </th>
                  <th style={{ width: 170 }}>When</th>
                  <th style={{ width: 150 }}>Who</th>
                  <th>What</th>
                </tr>
              </thead>
              <tbody>
                {lines.map((line) => (
                  <tr key={line.id}>
                    <td className="figure">{line.id}</td>
                    <td>{hourWords(line.at, style)}</td>
                    <td>{line.who}</td>
                    <td className="sentence">{auditWords(line)}</td>
                  </tr>
                ))}
              </tbody>
            </Ruled>
          </Wide>
          {last && last.id > 1 && <Link href={`/setup/people/audit?before=${last.id}`}>Lines before these</Link>}
        </Section>
      )}
    </Page>
  );
}
