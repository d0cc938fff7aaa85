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

/** What is pressed to take a step down: it says that it is taken down, not that it is so. */
export const STEP_ACTS: Readonly<Record<SaleStage, string>> = {
  agreed: 'Note that it is agreed',
  'money held': 'Note that the money is held',
  'buyer known': 'Note the buyer’s account',
  'handed over': 'Note that it is handed over',
  arrived: 'Note that it has arrived',
  done: 'Book the money',
  'not paid': 'It was not paid',
  refused: 'It was refused',
  dispute: 'It is disputed',
};
