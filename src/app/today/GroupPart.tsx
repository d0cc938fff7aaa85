'use client';
import type { TodayGroup } from '@/core/ledger';
import { Button, ButtonLink } from '@/ui/controls/Button';
import { Actions } from '@/ui/overlay/Dialog';
import { Section } from '@/ui/text/Sheet';
import { namesWords } from '@/ui/text/words';
import { useRenew } from '../acts/renew/useRenew';
import { useAct } from '../acts/useAct';
import type { RowView, TodayView } from '../frame/views';
import { mailConfirmedAction } from './actions';
import { TodayTable } from './TodayTable';

const GROUP_WORDS: Readonly<Record<TodayGroup, string>> = {
  'charge will fail': 'The charge will fail',
  'past its term': 'Past the term',
  'mail to confirm': 'The holder’s mail has to be confirmed',
  lapses: 'Lapse within 60 days',
  'will be charged': 'Will be charged within 30 days',
};
interface GroupPartProps {
  readonly group: TodayView['groups'][number];
  readonly isOpen: (row: RowView) => boolean;
  readonly onSwitch: (row: RowView) => void;
  readonly onSeen: (row: RowView) => void;
}

/** The names of one consequence, and what can be done with all of them. */
export function GroupPart({ group: { group, total, rows }, isOpen, onSwitch, onSeen }: GroupPartProps) {
  const plan = useRenew();
  const { act } = useAct();
  const renew = (some: readonly RowView[]) =>
    plan(some.map((row) => ({ nameId: row.name.id, years: row.policy.terms.renew.least })));
  return (
    <Section aria-label={GROUP_WORDS[group]}>
      <Actions>
        <h2>
          {GROUP_WORDS[group]}: {namesWords(total)}
        </h2>
        {group === 'past its term' && <ButtonLink href="/rescue">To Rescue</ButtonLink>}
        {group === 'charge will fail' && <ButtonLink href="/renewals">See the funding</ButtonLink>}
        {group === 'lapses' && (
          <Button onPress={() => void renew(rows)}>
            Renew {total > rows.length ? `the first ${rows.length}` : 'them'}…
          </Button>
        )}
      </Actions>
      <TodayTable
        group={group}
        label={GROUP_WORDS[group]}
        rows={rows}
        isOpen={isOpen}
        onRenew={(row) => void renew([row])}
        onRestore={(row) => void plan([{ nameId: row.name.id, years: 1 }], 'restore')}
        onSwitch={onSwitch}
        onSeen={onSeen}
        onMailConfirmed={(row) => void act(() => mailConfirmedAction(row.name.id))}
      />
      {total > rows.length && (
        <p className="soft">
          The first {rows.length} of {total}.
        </p>
      )}
    </Section>
  );
}
