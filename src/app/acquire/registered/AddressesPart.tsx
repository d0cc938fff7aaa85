'use client';
import { Button } from '@/ui/controls/Button';
import { Ruled, Section } from '@/ui/text/Sheet';
import { Wide } from '@/ui/text/Wide';
import { dayWords, namesWords } from '@/ui/text/words';
import type { HolderAddress } from '@/usecases/acquiring/addresses';
import { useSave } from '../../acts/useSave';
import { useLedger } from '../../frame/LedgerProvider';
import { tellAddressAction } from '../actions';

/** Mail addresses of holders, at each account: confirmed when and by what, sent again when, and which names hang on them. */
export function AddressesPart({ addresses }: { addresses: readonly HolderAddress[] }) {
  const { style, meta } = useLedger();
  const { ask } = useSave({ ledger: true });
  const labels = new Map((meta?.rules.accounts ?? []).map(({ id, label }) => [id, label]));
  return (
    <Section aria-label="Holders’ mail addresses">
      <h2>Holders’ mail addresses</h2>
      <Wide>
        <Ruled aria-label="Holders’ mail addresses">
          <thead>
            <tr>
              <th>Address</th>
              <th>Account</th>
              <th>Confirmed</th>
              <th>Hang on it</th>
              <th>
                <span className="visually-hidden">Act</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {addresses.map(({ accountId, address, confirmedAt, evidence, askedAt, sentAgainAt, names }) => (
              <tr key={`${accountId} ${address}`}>
                <td>{address}</td>
                <td>{labels.get(accountId)}</td>
                <td>
                  {confirmedAt === null ? (
                    <span className="caution">not yet</span>
                  ) : (
                    `${dayWords(confirmedAt, style)}, ${evidence}`
                  )}
                  {confirmedAt === null && askedAt !== null && (
                    <div className="soft">asked on {dayWords(askedAt, style)}</div>
                  )}
                  {confirmedAt === null && sentAgainAt !== null && (
                    <div className="soft">sent again on {dayWords(sentAgainAt, style)}</div>
                  )}
                </td>
                <td>
                  {namesWords(names.length)}
                  {names.length > 0 && <div className="name soft">{names.slice(0, 4).join(' ')}</div>}
                </td>
                <td>
                  {confirmedAt === null && (
                    <>
                      <Button
                        data-kind="plain"
                        aria-label={`${address} is confirmed at ${labels.get(accountId)}`}
                        onPress={() =>
                          void ask(tellAddressAction({ accountId, address, came: 'confirmed' }), 'Taken down.')
                        }
                      >
                        It is confirmed
                      </Button>
                      <Button
                        data-kind="plain"
                        aria-label={`The mail to ${address} was sent again`}
                        onPress={() =>
                          void ask(tellAddressAction({ accountId, address, came: 'sent again' }), 'Taken down.')
                        }
                      >
                        Sent again
                      </Button>
                    </>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </Ruled>
      </Wide>
    </Section>
  );
}
