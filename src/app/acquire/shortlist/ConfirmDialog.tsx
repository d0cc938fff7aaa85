'use client';
import { useState } from 'react';
import type { Amount } from '@/core/money';
import { Button } from '@/ui/controls/Button';
import { Actions, Dialog } from '@/ui/overlay/Dialog';
import { formatAmount } from '@/ui/text/figures';
import { Ruled } from '@/ui/text/Sheet';
import { amountsWords, namesWords, yearsWords } from '@/ui/text/words';
import type { ReviewAccount, ReviewItem } from '@/usecases/acquiring/review';

interface ConfirmDialogProps {
  readonly items: readonly ReviewItem[];
  readonly accounts: readonly ReviewAccount[];
  readonly sums: readonly Amount[];
  readonly isOpen: boolean;
  readonly isBusy: boolean;
  readonly onClose: () => void;
  readonly onRegister: (key: string) => Promise<void>;
}

/** The last look: every name in its letters, at which account, for how long and how much. It cannot be undone after the first days. */
export function ConfirmDialog({ items, accounts, sums, isOpen, isBusy, onClose, onRegister }: ConfirmDialogProps) {
  const [key] = useState(() => crypto.randomUUID());
  const labels = new Map(accounts.map(({ id, label }) => [id, label]));
  const linked = new Set(accounts.filter((account) => account.linked).map(({ id }) => id));
  const byHand = items.filter(({ accountId }) => accountId !== null && !linked.has(accountId)).length;
  return (
    <Dialog title={`Register ${namesWords(items.length)}`} isOpen={isOpen} onClose={onClose}>
      <Ruled aria-label="Names to be registered">
        <tbody>
          {items.map(({ wanted, accountId, years, price }) => (
            <tr key={wanted.ascii}>
              <td className="name">{wanted.unicode}</td>
              <td>
                {yearsWords(years)} at {labels.get(accountId ?? 0)}
              </td>
              <td className="figure">{price && formatAmount(price.total)}</td>
            </tr>
          ))}
        </tbody>
      </Ruled>
      <p>
        Never for more than these sums. A registered name is kept for its term: it can be given back only where the
        review says so, and only in its first days.
        {byHand > 0 && ` You register ${namesWords(byHand)} yourself: what to do there is told next.`}
      </p>
      <Actions>
        <Button data-kind="primary" isDisabled={isBusy} onPress={() => void onRegister(key)}>
          Register for {amountsWords(sums)}
        </Button>
        <Button onPress={onClose}>Not yet</Button>
      </Actions>
    </Dialog>
  );
}
