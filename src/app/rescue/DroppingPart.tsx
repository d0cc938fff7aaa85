'use client';
import { sumByCurrency } from '@/core/money';
import { Button } from '@/ui/controls/Button';
import { Link } from '@/ui/controls/Link';
import { formatAmount } from '@/ui/text/figures';
import { Ruled, Section } from '@/ui/text/Sheet';
import { Wide } from '@/ui/text/Wide';
import { amountsWords, dayWords, namesWords, outlookWords } from '@/ui/text/words';
import type { DropRow } from '@/usecases/rescue/drop';
import { useLedger } from '../frame/LedgerProvider';
import { namePage } from '../frame/pages';
import type { RowView } from '../frame/views';

/** Names that are dropped on purpose: why, how far it is, what it saves, and the way back. */
export function DroppingPart({
  rows,
  going,
  onKeep,
}: {
  rows: readonly RowView[];
  going: readonly DropRow[];
  onKeep: (row: RowView) => void;
}) {
  const { style } = useLedger();
  if (rows.length === 0) return null;
  const known = new Map(going.map((one) => [one.nameId, one]));
  const saving = sumByCurrency(rows.flatMap((row) => row.costs.perYear ?? []));
  return (
    <Section aria-label="Being dropped">
      <h2>
        Being dropped: {namesWords(rows.length)}, saves {amountsWords(saving)} a year
      </h2>
      <Wide>
        <Ruled aria-label="Being dropped">
          <thead>
            <tr>
              <th>Name</th>
              <th>Why</th>
              <th>Since</th>
              <th>Auto-renew</th>
              <th>If nothing is done</th>
              <th className="figure">Saves a year</th>
              <th>
                <span className="visually-hidden">Act</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => {
              const about = known.get(row.name.id);
              return (
                <tr key={row.name.id}>
                  <td>
                    <Link href={namePage(row.name.ascii)} className="name">
                      {row.name.unicode}
                    </Link>
                  </td>
                  <td>
                    {about?.reason}
                    {about?.hasZone && (
                      <>
                        {', '}
                        <a href={`/rescue/zone/${row.name.id}`} download>
                          zone kept
                        </a>
                      </>
                    )}
                  </td>
                  <td>{about ? dayWords(about.begunAt, style) : ''}</td>
                  <td>{settingWords(row, about)}</td>
                  <td className="soft">{outlookWords(row.outlook, style)}</td>
                  <td className="figure">{row.costs.perYear ? formatAmount(row.costs.perYear) : '–'}</td>
                  <td className="figure">
                    <Button
                      data-kind="plain"
                      onPress={() => onKeep(row)}
                      aria-label={`Keep ${row.name.unicode} after all`}
                    >
                      Keep it after all
                    </Button>
                  </td>
                </tr>
              );
            })}
          </tbody>
        </Ruled>
      </Wide>
    </Section>
  );
}

function settingWords({ setting, name }: RowView, about: DropRow | undefined): string {
  if (name.requested === 'off')
    return about?.pendingSince ? 'on; the registrar is switching it off' : `${setting}, off requested`;
  return setting === 'off' ? 'off' : setting;
}
