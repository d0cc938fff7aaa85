'use client';
import type { Contradiction } from '@/core/ledger';
import { Button } from '@/ui/controls/Button';
import { Link } from '@/ui/controls/Link';
import { Ruled, Section } from '@/ui/text/Sheet';
import { outlookWords } from '@/ui/text/words';
import { useLedger } from '../frame/LedgerProvider';
import { namePage } from '../frame/pages';
import type { ContradictingRow, RowView } from '../frame/views';

function words(contradiction: Contradiction): string {
  switch (contradiction.kind) {
    case 'on for a name being dropped':
      return 'auto-renew is on, though it is being dropped';
    case 'off for a name never to be lost':
      return 'never to be lost, though auto-renew is not on';
    case 'believed, never confirmed':
      return 'believed to renew itself, and never confirmed at the registrar';
    case 'several years a charge':
      return `one charge buys ${contradiction.years} years`;
  }
}

/** Settings that contradict what is wanted of a name, before they cost. */
export function Contradictions({
  rows,
  onSwitch,
}: {
  rows: readonly ContradictingRow[];
  onSwitch: (row: RowView) => void;
}) {
  const { style } = useLedger();
  if (rows.length === 0) return null;
  return (
    <Section>
      <h2>Contradictions</h2>
      <Ruled aria-label="Contradictions" data-list>
        <tbody>
          {rows.map(({ row, contradiction }) => (
            <tr key={row.name.id}>
              <td>
                <Link href={namePage(row.name.ascii)} className="name">
                  {row.name.unicode}
                </Link>
              </td>
              <td className="sentence">{words(contradiction)}</td>
              <td className="sentence soft">{outlookWords(row.outlook, style)}</td>
              <td className="figure">
                <Button data-kind="plain" onPress={() => onSwitch(row)}>
                  Auto-renew…
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </Ruled>
    </Section>
  );
}
