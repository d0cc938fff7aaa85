'use client';
import styled from 'styled-components';
import type { Switch, Totals } from '@/core/ledger';
import { type Amount, currencyDigits, sumIn } from '@/core/money';
import { dayOf } from '@/core/time';
import { Button } from '@/ui/controls/Button';
import { Acts, Bar } from '@/ui/grid/TotalsBar';
import { Menu } from '@/ui/overlay/Menu';
import { formatAmount } from '@/ui/text/figures';
import { amountsWords, namesWords } from '@/ui/text/words';
import { useDay, useLedger } from '../frame/LedgerProvider';

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
      {totals.lost > 0 && (
        <span>
          <b>{totals.lost.toLocaleString('en')} lost</b> {daysAhead > 0 ? 'by then' : 'for good'}
        </span>
      )}
      <span>
        a year <Sum of={totals.perYear} />
      </span>
      <span>
        charged in 30 days <Sum of={totals.charged30} />, in 90 <Sum of={totals.charged90} />
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
        renew once <Sum of={totals.renewal} />
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
        spent <Sum of={totals.spent} />
      </span>
      <span>
        asking <Sum of={totals.asking} />
      </span>
      {totals.unpriced > 0 && <span>{totals.unpriced.toLocaleString('en')} without a price</span>}
    </>
  );
}

/**
 * A sum as the bar shows it: exact in one currency; several as one figure in the home currency by the rates of today, marked as about and
 * told by currency to who points at it or reads by ear. Without a rate they stand side by side.
 */
function Sum({ of: amounts }: { of: readonly Amount[] }) {
  const { meta, homeCurrency, today } = useLedger();
  const [only] = amounts;
  const whole = amounts.length > 1 && meta ? sumIn(amounts, homeCurrency, meta.rules.rates, dayOf(today)) : null;
  if (!only) return <b>–</b>;
  if (whole === null) return <b>{amountsWords(amounts, only.minor % 100 === 0)}</b>;
  const exact = amountsWords(amounts);
  return (
    <b title={exact}>
      <span aria-hidden>≈{formatAmount({ ...whole, minor: roundToUnits(whole) }, true)}</span>
      <span className="visually-hidden">{exact}</span>
    </b>
  );
}

/** Whole units of a currency: a figure that rests on rates has no more. */
function roundToUnits({ minor, currency }: Amount): number {
  const unit = 10 ** currencyDigits(currency);
  return Math.round(minor / unit) * unit;
}

const Renew = styled(Button)`background: var(--land); color: #15242e;`;
