'use client';
import styled from 'styled-components';
import type { Switch, Totals } from '@/core/ledger';
import { Button } from '@/ui/controls/Button';
import { Acts, Bar } from '@/ui/grid/TotalsBar';
import { Menu } from '@/ui/overlay/Menu';
import { amountsWords, namesWords } from '@/ui/text/words';
import { useDay } from '../frame/LedgerProvider';

interface TotalsOfViewProps {
  readonly totals: Totals;
  /** They are still those of another day or other filters: pale until the new ones are there. */
  readonly isOld: boolean;
  /** The view as the query of a URL, and its columns: what is exported. */
  readonly query: string;
  readonly columns: readonly string[];
}

/** The totals of every name in the view, and the view as a file. */
export function TotalsOfView({ totals, isOld, query, columns }: TotalsOfViewProps) {
  const { day, daysAhead } = useDay();
  const asOf = daysAhead > 0 ? `&asOf=${new Date(day).toISOString()}` : '';
  const exported = (format: string) =>
    `/api/v1/names/export?format=${format}&columns=${columns.join(',')}${asOf}&${query}`;
  return (
    <Bar aria-label="Totals of the view" aria-busy={isOld}>
      <b>{namesWords(totals.names)}</b>
      <span>
        cost per year <b>{amountsWords(totals.perYear)}</b>
      </span>
      <span>
        charged in 30 days <b>{amountsWords(totals.charged30)}</b>, in 90 <b>{amountsWords(totals.charged90)}</b>
      </span>
      <SpentAndAsked totals={totals} />
      <Acts>
        <Menu
          trigger={<Button>Export</Button>}
          label="Export this view"
          choices={[
            { id: 'csv', text: 'This view as CSV' },
            { id: 'xlsx', text: 'This view as a workbook (.xlsx)' },
            { id: 'json', text: 'This view as JSON' },
          ]}
          onChoose={(format) => window.location.assign(exported(format))}
        />
      </Acts>
    </Bar>
  );
}

/** What can be done with the chosen names. */
export type ChosenAct = Switch | 'renew' | 'edit' | 'sell' | 'move' | 'servers' | 'drop' | 'check' | 'clear';

interface TotalsOfChosenProps {
  readonly totals: Totals;
  readonly disabled: boolean;
  readonly onAct: (act: ChosenAct) => void;
}

/** The totals of the chosen names, with what can be done with them. */
export function TotalsOfChosen({ totals, disabled, onAct }: TotalsOfChosenProps) {
  return (
    <Bar aria-label="Totals of the chosen names">
      <b>{namesWords(totals.names)} chosen</b>
      <span>
        renew once <b>{amountsWords(totals.renewal)}</b>
      </span>
      <SpentAndAsked totals={totals} />
      <Acts>
        <Renew onPress={() => onAct('renew')} isDisabled={disabled}>
          Renew…
        </Renew>
        <Button onPress={() => onAct('auto-renew')} isDisabled={disabled}>
          Auto-renew…
        </Button>
        <Button onPress={() => onAct('edit')} isDisabled={disabled}>
          Edit…
        </Button>
        <Menu
          trigger={<Button isDisabled={disabled}>More</Button>}
          label="More to do with the chosen names"
          choices={[
            { id: 'sell', text: 'List for sale…' },
            { id: 'move', text: 'Plan transfers…' },
            { id: 'lock', text: 'Transfer lock…' },
            { id: 'privacy', text: 'Privacy…' },
            { id: 'servers', text: 'Name servers…' },
            { id: 'drop', text: 'Drop…' },
            { id: 'check', text: 'Check the registration record' },
          ]}
          onChoose={(id) => onAct(id as ChosenAct)}
        />
        <Button onPress={() => onAct('clear')}>Clear</Button>
      </Acts>
    </Bar>
  );
}

function SpentAndAsked({ totals }: { totals: Totals }) {
  return (
    <>
      <span>
        spent so far <b>{amountsWords(totals.spent)}</b>
      </span>
      <span>
        asking <b>{amountsWords(totals.asking, true)}</b>
      </span>
      {totals.unpriced > 0 && <span>{namesWords(totals.unpriced)} without a price</span>}
    </>
  );
}

const Renew = styled(Button)`background: var(--land); color: #15242e;`;
