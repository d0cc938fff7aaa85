'use client';
import { useEffect, useState } from 'react';
import type { Forecast } from '@/core/prospects';
import { formatMonth, type Month } from '@/core/time';
import { Choice } from '@/ui/controls/Field';
import { Link } from '@/ui/controls/Link';
import { roughly, shareWords } from '@/ui/text/prospectWords';
import { countOf } from '@/ui/text/todayWords';
import { useLedger } from '../frame/LedgerProvider';
import { namePage } from '../frame/pages';
import type { MonthCharges } from '../frame/views';
import { useProspects } from './ProspectsContext';

const SHOWN = 12;

/** What a month holds: the balances between which most paths lie, and what is charged in it if nothing is done. */
export function MonthPart({
  forecast,
  month,
  onChoose,
}: {
  forecast: Forecast;
  month: number | null;
  onChoose: (month: number) => void;
}) {
  const { worker } = useLedger();
  const { assumptions } = useProspects();
  const [charges, setCharges] = useState<{ month: number; found: MonthCharges } | null>(null);
  const shown = month ?? 0;
  useEffect(() => {
    if (!worker) return;
    let stale = false;
    void worker.monthCharges(assumptions, shown, SHOWN).then((found) => !stale && setCharges({ month: shown, found }));
    return () => {
      stale = true;
    };
  }, [worker, assumptions, shown]);
  const [fan] = forecast.fans;
  const found = charges?.month === shown ? charges.found : null;
  const money = (minor: number) => roughly(minor, forecast.currency);
  const at = (line: number) => money(fan?.lines[line]?.[shown] ?? 0);
  return (
    <div style={{ display: 'flex', gap: 14, alignItems: 'start', flexWrap: 'wrap', minHeight: 92 }}>
      <Choice
        label="Month"
        value={String(shown)}
        onChange={(value) => onChoose(Number(value))}
        options={forecast.months.map((name, i) => ({ value: String(i), text: formatMonth(name as Month) }))}
      />
      <p style={{ flex: '1 1 320px', maxWidth: '80ch' }}>
        At its end {at(2)} in the middle, between {at(0)} and {at(4)} on nine of ten paths; nothing sold yet on{' '}
        {shareWords(fan?.unsold[shown] ?? 1)} of them, below the floor before or then on{' '}
        {shareWords(fan?.short[shown] ?? 0)}.{' '}
        {found && (
          <>
            {found.count === 0
              ? 'Nothing is charged in it.'
              : `${countOf(found.count, 'charge', 'charges')} of ${money(found.minor)}: `}
            {found.names.map(({ ascii, unicode, minor }, i) => (
              <span key={ascii}>
                {i > 0 && ', '}
                <Link href={namePage(ascii)} className="name">
                  {unicode}
                </Link>{' '}
                {money(minor)}
              </span>
            ))}
            {found.count > found.names.length && ` and ${found.count - found.names.length} more.`}
          </>
        )}
      </p>
    </div>
  );
}
