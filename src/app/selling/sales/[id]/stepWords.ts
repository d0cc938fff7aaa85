import type { SaleStage } from '@/core/selling';

/** What each step of a sale is called where it is taken down. */
export const STEP_WORDS: Readonly<Record<SaleStage, string>> = {
  agreed: 'Agreed',
  'money held': 'The money is held',
  'buyer known': 'The buyer’s account is known',
  'handed over': 'Handed over',
  arrived: 'It has arrived',
  done: 'The money is released',
  'not paid': 'Not paid',
  refused: 'Refused',
  dispute: 'In dispute',
};
