'use client';
import type { Switch } from '@/core/ledger';
import { type Amount, sumByCurrency } from '@/core/money';
import type { Instant } from '@/core/time';
import { Button } from '@/ui/controls/Button';
import { Link } from '@/ui/controls/Link';
import { Ruled, Section } from '@/ui/text/Sheet';
import { amountsWords, dayWords, namesWords } from '@/ui/text/words';
import { SWITCH_WORDS, switchesRequested } from '../acts/switch/SwitchDialog';
import { useLedger } from '../frame/LedgerProvider';
import { namePage } from '../frame/pages';
import type { RowView } from '../frame/views';
export interface OpenRenewalLine {
  readonly id: string;
  readonly status: string;
  readonly madeAt: Instant;
  readonly names: number;
  readonly totals: readonly Amount[];
}

/** Runs that are begun and not settled. */
export function OpenRuns({ runs }: { runs: readonly OpenRenewalLine[] }) {
  const { style } = useLedger();
  if (runs.length === 0) return null;
  return (
    <Section aria-label="Runs that are not settled">
      <h2>Runs that are not settled</h2>
      <Ruled>
        <thead>
          <tr>
            <th>Begun</th>
            <th>Names</th>
            <th className="figure">Quoted</th>
            <th>Status</th>
          </tr>
        </thead>
        <tbody>
          {runs.map((renewal) => (
            <tr key={renewal.id}>
              <td>
                <Link href={`/renewals/${renewal.id}`}>{dayWords(renewal.madeAt, style)}</Link>
              </td>
              <td>{namesWords(renewal.names)}</td>
              <td className="figure">{amountsWords(sumByCurrency(renewal.totals))}</td>
              <td>{renewal.status}</td>
            </tr>
          ))}
        </tbody>
      </Ruled>
    </Section>
  );
}

/** Switches that were requested at a registrar and are not confirmed. */
export function RequestedSwitches({
  rows,
  onConfirm,
}: {
  rows: readonly RowView[];
  onConfirm: (row: RowView, what: Switch) => void;
}) {
  if (rows.length === 0) return null;
  return (
    <Section aria-label="Requested, not confirmed">
      <h2>Requested, not confirmed</h2>
      <Ruled aria-label="Requested, not confirmed">
        <thead>
          <tr>
            <th>Name</th>
            <th>Ledger</th>
            <th>Requested</th>
            <th>
              <span className="visually-hidden">Act</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.flatMap((row) =>
            switchesRequested(row).map(({ what, setting, to }) => (
              <tr key={`${row.name.id} ${what}`}>
                <td>
                  <Link href={namePage(row.name.ascii)} className="name">
                    {row.name.unicode}
                  </Link>
                </td>
                <td>
                  {SWITCH_WORDS[what].toLowerCase()} {setting}
                </td>
                <td>{to}</td>
                <td className="figure">
                  <Button
                    data-kind="plain"
                    onPress={() => onConfirm(row, what)}
                    aria-label={`Confirm ${SWITCH_WORDS[what].toLowerCase()} of ${row.name.unicode}`}
                  >
                    Confirm…
                  </Button>
                </td>
              </tr>
            )),
          )}
        </tbody>
      </Ruled>
    </Section>
  );
}
