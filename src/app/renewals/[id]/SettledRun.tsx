'use client';
import { formatDay } from '@/core/time';
import { Button, ButtonLink } from '@/ui/controls/Button';
import { Actions } from '@/ui/overlay/Dialog';
import { formatAmount } from '@/ui/text/figures';
import { Page, Ruled, Section } from '@/ui/text/Sheet';
import { Wide } from '@/ui/text/Wide';
import { dayWords } from '@/ui/text/words';
import type { OpenRenewal } from '@/usecases/orders/plan';
import { useLedger } from '../../frame/LedgerProvider';

/** A run that is settled: what was renewed, what was charged, and the receipts, for printing and as CSV. */
export function SettledRun({ renewal }: { renewal: OpenRenewal['renewal'] }) {
  const { style } = useLedger();
  const past = renewal.action === 'restore' ? 'restored' : 'renewed';
  return (
    <Page>
      <Section>
        <h2>
          {renewal.status === 'dropped'
            ? `Dropped. Nothing was ${past}.`
            : renewal.undone
              ? 'Confirmed, then taken back in the books.'
              : 'Confirmed.'}
        </h2>
        {renewal.person !== null && <p className="soft">Asked for by {renewal.person}.</p>}
        {renewal.status === 'confirmed' && (
          <Wide>
            <Ruled aria-label="Receipts">
              <thead>
                <tr>
                  <th>Name</th>
                  <th>{renewal.action === 'restore' ? 'Restored with' : 'Renewed for'}</th>
                  <th>New end</th>
                  <th className="figure">Charged</th>
                  <th className="figure">of it tax</th>
                  <th>On</th>
                  <th>Paid by</th>
                  <th>Receipt</th>
                </tr>
              </thead>
              <tbody>
                {renewal.items.map((item) => (
                  <tr key={item.nameId} data-off={!item.done}>
                    <td className="name">
                      {item.unicode}
                      {item.unicode !== item.ascii && <div className="soft">{item.ascii}</div>}
                    </td>
                    <td>{item.done ? `${item.years} ${item.years === 1 ? 'year' : 'years'}` : `not ${past}`}</td>
                    <td>{item.done && item.newEnd ? dayWords(item.newEnd, style) : ''}</td>
                    <td className="figure">
                      {item.chargedMinor !== null && item.currency
                        ? formatAmount({ minor: item.chargedMinor, currency: item.currency })
                        : ''}
                    </td>
                    <td className="figure">{taxWords(item)}</td>
                    <td>{item.done && item.chargedOn ? formatDay(item.chargedOn) : ''}</td>
                    <td>{item.done ? item.paymentMethod || 'not told' : ''}</td>
                    <td className="name">{item.done ? item.reference : ''}</td>
                  </tr>
                ))}
              </tbody>
            </Ruled>
          </Wide>
        )}
        <Actions>
          <ButtonLink href="/ledger" data-kind="primary">
            To the ledger
          </ButtonLink>
          {renewal.person !== null && <p className="soft">Asked for by {renewal.person}.</p>}
          {renewal.status === 'confirmed' && (
            <>
              <Button onPress={() => window.print()}>Print</Button>
              <a href={`/renewals/${renewal.id}/run`} download>
                This run as CSV
              </a>
            </>
          )}
        </Actions>
      </Section>
    </Page>
  );
}

/** The tax within what was charged: known where the charge is what was quoted. */
function taxWords({
  chargedMinor,
  quotedMinor,
  quotedTaxMinor,
  currency,
}: OpenRenewal['renewal']['items'][number]): string {
  if (chargedMinor === null || currency === null) return '';
  if (chargedMinor !== quotedMinor || quotedTaxMinor === null) return 'not told';
  return quotedTaxMinor === 0 ? 'none' : formatAmount({ minor: quotedTaxMinor, currency });
}
