'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { report } from '@/ui/overlay/Toasts';
import { useRenew } from '../acts/renew/useRenew';
import type { RescueRow, RowView } from '../frame/views';
import { runOfNameAction } from './actions';

/** Doing what a verdict says with one name, or with the chosen ones: the same in danger and out of it. */
export function useActing() {
  const router = useRouter();
  const renew = useRenew();
  const [chosen, setChosen] = useState<ReadonlySet<number>>(new Set());
  const [deciding, setDeciding] = useState<RescueRow | null>(null);
  const [leaving, setLeaving] = useState<readonly RowView[]>([]);

  /** A restore that is paid waits for its report: in its run, or at the registrar when it was not requested here. */
  const sendReport = async ({ row }: RescueRow) => {
    const run = await runOfNameAction(row.name.id);
    if (run) router.push(`/renewals/${run}`);
    else
      report({
        text: `The restore of ${row.name.unicode} was not requested here: send its report at the registrar.`,
        problem: true,
      });
  };

  const act = (about: RescueRow) => {
    const { row, judgement } = about;
    const item = [{ nameId: row.name.id, years: row.policy.terms.renew.least }];
    switch (judgement.verdict) {
      case 'renew':
      case 'renew late':
        return void renew(item);
      case 'restore':
        return void renew(item, 'restore');
      case 'send the report':
        return void sendReport(about);
      case 'drop':
        return setLeaving([row]);
      case 'undecided':
        return setDeciding(about);
    }
  };
  const choose = (nameId: number, isChosen: boolean) =>
    setChosen((now) => new Set(isChosen ? [...now, nameId] : [...now].filter((id) => id !== nameId)));
  return { act, choose, chosen, setChosen, deciding, setDeciding, leaving, setLeaving };
}
