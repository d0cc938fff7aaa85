import type { Verdict, VerdictReason } from '@/core/rescue';
import { formatAmount } from '@/ui/text/figures';
import { roughly, shareWords } from '@/ui/text/prospectWords';

export const VERDICT_WORDS: Readonly<Record<Verdict, string>> = {
  renew: 'Renew',
  'renew late': 'Renew late',
  restore: 'Restore',
  'send the report': 'Send the report',
  drop: 'Drop',
  undecided: 'Undecided',
};

/** Why a verdict is as it is, in a few words with its figures. */
export function reasonWords(reason: VerdictReason): string {
  switch (reason.kind) {
    case 'in use':
      return 'in use';
    case 'never to be lost':
      return 'never to be lost';
    case 'restore is paid':
      return 'the restore is paid';
    case 'no price asked':
      return 'nothing is asked for it';
    case 'cost not known':
      return 'the cost is not known';
    case 'other currency':
      return 'asked in another currency than it costs, and no rate is known';
    case 'decided':
      return 'you decided so';
    case 'being sold':
      return 'it is being sold';
    case 'worth it':
    case 'not worth it': {
      const { chance, proceeds, cost, value, ruleOfThumb } = reason;
      const sells =
        chance === 1
          ? `an offer would leave ${formatAmount(proceeds)}`
          : `${shareWords(chance)} a year to leave about ${roughly(proceeds.minor, proceeds.currency)}`;
      const worth =
        value.minor < 0
          ? `${formatAmount({ ...value, minor: -value.minor })} less than`
          : `${formatAmount(value)} over`;
      return `${sells}: ${worth} its cost of ${ruleOfThumb ? 'about ' : ''}${formatAmount(cost)}`;
    }
  }
}
