'use client';
import { useState } from 'react';
import type { RegistrationRecord } from '@/core/records';
import { Choice } from '@/ui/controls/Field';
import { Fields, Ruled, Section } from '@/ui/text/Sheet';
import { Wide } from '@/ui/text/Wide';
import { dayWords, hourWords, termEndWords } from '@/ui/text/words';
import type { StoredRecord } from '@/usecases/records/records';
import { useLedger } from '../../frame/LedgerProvider';

type Dated = StoredRecord & { raw: string };

/** Every dated copy of a record, what changed from one to the next, and any two side by side. */
export function RecordHistory({ history }: { history: readonly Dated[] }) {
  const { style } = useLedger();
  const [left, setLeft] = useState(String(history[1]?.id ?? history[0]?.id ?? ''));
  const [right, setRight] = useState(String(history[0]?.id ?? ''));
  if (history.length === 0) return null;
  const options = history.map((one) => ({
    value: String(one.id),
    text: `${hourWords(one.firstAt, style)}, ${one.source}`,
  }));
  const of = (id: string) => history.find((one) => String(one.id) === id) ?? history[0];
  const [a, b] = [of(left), of(right)];
  const lines =
    a && b
      ? linesOf(a.record, style).map(([what, said], i) => [what, said, linesOf(b.record, style)[i]?.[1] ?? ''] as const)
      : [];
  return (
    <Section aria-label="Dated records">
      <h2>Dated records</h2>
      <Ruled aria-label="Dated records">
        <tbody>
          {history.map((one, i) => (
            <tr key={one.id}>
              <td>
                {dayWords(one.firstAt, style)}
                {one.lastAt > one.firstAt && ` to ${dayWords(one.lastAt, style)}`}
              </td>
              <td>{one.source}</td>
              <td>
                {changeWords(
                  one,
                  history.slice(i + 1).find((other) => other.source === one.source),
                  style,
                )}
              </td>
              <td>
                <details>
                  <summary>raw</summary>
                  <pre>{one.raw.slice(0, 6000)}</pre>
                </details>
              </td>
            </tr>
          ))}
        </tbody>
      </Ruled>
      {history.length > 1 && (
        <>
          <Fields>
            <Choice label="One record" value={left} onChange={setLeft} options={options} />
            <Choice label="Beside" value={right} onChange={setRight} options={options} />
          </Fields>
          <Wide>
            <Ruled aria-label="Two records side by side">
              <tbody>
                {lines.map(([what, one, other]) => (
                  <tr key={what}>
                    <th scope="row">{what}</th>
                    <td>{one}</td>
                    <td className={one === other ? undefined : 'caution'}>{other}</td>
                  </tr>
                ))}
              </tbody>
            </Ruled>
          </Wide>
        </>
      )}
    </Section>
  );
}

/** A record as lines that can be laid side by side. */
export function linesOf(record: RegistrationRecord, style: Parameters<typeof dayWords>[1]): [string, string][] {
  return [
    ['registered', record.found ? 'yes' : 'no'],
    [
      'term ends',
      record.expires
        ? termEndWords(record.expires, style)
        : record.registrarExpires
          ? termEndWords(record.registrarExpires, style)
          : '',
    ],
    ['registrar', record.registrar ?? ''],
    [
      'holder',
      record.holder
        ? record.holder.redacted
          ? 'held back'
          : (record.holder.organisation ?? record.holder.name ?? '')
        : '',
    ],
    ['statuses', [...record.statuses].sort().join(', ')],
    ['name servers', [...record.nameServers].sort().join(', ')],
    ['signed', record.signed === null ? '' : record.signed ? 'yes' : 'no'],
    ['signers', [...record.ds].sort().join(', ')],
    ['delegation', record.delegation ?? ''],
    ['contacts', record.contacts.map(({ role, mail, form }) => `${role} ${mail ?? form ?? 'held back'}`).join(', ')],
    ['abuse', [record.abuseMail, record.abusePhone].filter(Boolean).join(', ')],
    ['last changed', record.changed === null ? '' : hourWords(record.changed, style)],
    ['registrar’s record at', record.related ?? record.referral ?? ''],
  ];
}

function changeWords(one: Dated, before: Dated | undefined, style: Parameters<typeof dayWords>[1]): string {
  if (!before) return 'first seen';
  const earlier = new Map(linesOf(before.record, style));
  const changes = linesOf(one.record, style)
    .filter(([what, said]) => earlier.get(what) !== said)
    .map(([what, said]) => `${what}: ${earlier.get(what) || 'nothing'} → ${said || 'nothing'}`);
  return changes.join('; ') || 'particulars that only the raw text shows';
}
