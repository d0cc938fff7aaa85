'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { Button } from '@/ui/controls/Button';
import { Link } from '@/ui/controls/Link';
import { Actions } from '@/ui/overlay/Dialog';
import { Ruled, Section } from '@/ui/text/Sheet';
import { Wide } from '@/ui/text/Wide';
import { type DayStyle, dayWords, termEndWords } from '@/ui/text/words';
import type { StoredRecord } from '@/usecases/records/records';
import { checkNamesAction } from '../../acts/check/actions';
import { toldRefused } from '../../acts/toldRefused';
import { useLedger } from '../../frame/LedgerProvider';
import type { RowView } from '../../frame/views';
import { differs } from './differs';

interface RecordPartProps {
  readonly row: RowView;
  readonly nameServers: readonly string[];
  readonly records: readonly StoredRecord[];
}

/** Ledger, registry and registrar side by side. */
export function RecordPart({ row, nameServers, records }: RecordPartProps) {
  const router = useRouter();
  const { meta, style } = useLedger();
  const [busy, setBusy] = useState(false);
  const { name } = row;
  const newest = records.reduce<number>((last, { lastAt }) => Math.max(last, lastAt), 0);
  const check = async () => {
    if (toldRefused(await checkNamesAction([name.ascii]))) return;
    setBusy(true);
    setTimeout(() => {
      setBusy(false);
      router.refresh();
    }, 1200);
  };
  const account = meta?.rules.accounts.find((one) => one.id === name.accountId);
  const lines = linesOf({
    row,
    nameServers,
    records,
    registrarName: account?.registrar || account?.label || '',
    style,
  });
  return (
    <Section aria-label="Registration record">
      <Actions>
        <h2>Registration record</h2>
        <Button isDisabled={busy} onPress={() => void check()}>
          {busy ? 'Asking…' : 'Check it now'}
        </Button>
        <Link href={`/record/${encodeURIComponent(name.ascii)}`}>Open the record</Link>
      </Actions>
      {records.length === 0 ? (
        <p className="soft">Not checked yet.</p>
      ) : (
        <Wide>
          <Ruled aria-label="Ledger, registry and registrar">
            <thead>
              <tr>
                <th>
                  <span className="visually-hidden">What</span>
                </th>
                <th>Ledger</th>
                <th>Registry</th>
                <th>Registrar</th>
              </tr>
            </thead>
            <tbody>
              {lines.map(([what, ...said]) => (
                <tr key={what}>
                  <th scope="row">{what}</th>
                  {said.map((text, i) => (
                    // biome-ignore lint/suspicious/noArrayIndexKey: three fixed columns
                    <td key={i} className={differs(said, i, what) ? 'caution' : undefined}>
                      {differs(said, i, what) ? <mark>{text}</mark> : text}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </Ruled>
          <p className="soft">Seen {dayWords(newest as never, style)}.</p>
        </Wide>
      )}
    </Section>
  );
}

interface Compared extends RecordPartProps {
  /** What the ledger calls its registrar. */
  readonly registrarName: string;
  readonly style: DayStyle;
}

/** Each fact as the ledger, the registry and the registrar have it. */
function linesOf({ row, nameServers, records, registrarName, style }: Compared): [string, string, string, string][] {
  const { name, termEnd } = row;
  const of = (source: StoredRecord['source']) => records.find((one) => one.source === source)?.record ?? null;
  const [registry, registrar] = [of('registry') ?? of('pasted'), of('registrar')];
  const locked = (statuses: readonly string[]) =>
    statuses.some((s) => s.endsWith('TransferProhibited')) ? 'on' : 'off';
  const end = (record: typeof registry) => {
    const known = record?.expires ?? record?.registrarExpires ?? null;
    return known ? termEndWords(known, style) : '';
  };
  return [
    ['term ends', termEnd ? termEndWords(termEnd, style) : 'not known', end(registry), end(registrar)],
    ['registrar', registrarName, registry?.registrar ?? '', registrar?.registrar ?? ''],
    [
      'lock',
      name.lock === null ? 'not known' : name.lock ? 'on' : 'off',
      registry ? locked(registry.statuses) : '',
      registrar ? locked(registrar.statuses) : '',
    ],
    ['statuses', row.phase ?? '', registry?.statuses.join(', ') ?? '', registrar?.statuses.join(', ') ?? ''],
    [
      'name servers',
      nameServers.join(', '),
      registry?.nameServers.join(', ') ?? '',
      registrar?.nameServers.join(', ') ?? '',
    ],
  ];
}
