'use client';
import { useRouter } from 'next/navigation';
import styled from 'styled-components';
import type { Instant } from '@/core/time';
import { Button } from '@/ui/controls/Button';
import { Actions } from '@/ui/overlay/Dialog';
import { Page, Ruled, Section } from '@/ui/text/Sheet';
import { Wide } from '@/ui/text/Wide';
import { hourWords } from '@/ui/text/words';
import type { Trouble } from '@/usecases/health/troubles';
import { useLedger } from '../../frame/LedgerProvider';
import { useTitle } from '../../frame/PageTitle';

const Cause = styled.td`max-width: 62ch; overflow-wrap: anywhere; & small { display: block; color: var(--ink-soft); }`;

const PART_WORDS: Readonly<Record<string, string>> = {
  app: 'application',
  jobs: 'jobs',
  thread: 'computing',
  practice: 'practice world',
  postgres: 'database',
};

/** What went wrong lately, of all parts of the program. */
export function LogScreen({ folder, troubles }: { folder: string | null; troubles: readonly Trouble[] }) {
  useTitle('Log');
  const router = useRouter();
  const { style } = useLedger();
  return (
    <Page>
      <Section aria-label="Last troubles">
        <h2>{troubles.length === 0 ? 'Nothing went wrong lately' : `Last troubles: ${troubles.length}`}</h2>
        <p className="soft">
          {folder
            ? `The whole log, with the cause of each, is in ${folder}; bin/start --log shows it as it is written.`
            : 'This program was not started by bin/start: its log goes where it was started.'}
        </p>
        <Actions>
          <Button onPress={() => router.refresh()}>Look again</Button>
        </Actions>
        {troubles.length > 0 && (
          <Wide>
            <Ruled aria-label="Last troubles">
              <thead>
                <tr>
                  <th scope="col">When</th>
                  <th scope="col">Part</th>
                  <th scope="col">What</th>
                </tr>
              </thead>
              <tbody>
                {troubles.map((trouble, place) => (
                  // biome-ignore lint/suspicious/noArrayIndexKey: two lines of a log may be alike in everything.
                  <tr key={`${trouble.at} ${place}`}>
                    <td>{hourWords(trouble.at as Instant, style)}</td>
                    <td>{PART_WORDS[trouble.part] ?? trouble.part}</td>
                    <Cause className={trouble.isError ? 'caution' : undefined}>
                      {trouble.what}
                      {trouble.cause && <small>{trouble.cause}</small>}
                      {trouble.requestId && <small>request {trouble.requestId}</small>}
                    </Cause>
                  </tr>
                ))}
              </tbody>
            </Ruled>
          </Wide>
        )}
      </Section>
    </Page>
  );
}
