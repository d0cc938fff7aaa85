import type { EndingRules } from './types';

const GENERIC: EndingRules = {
  lateDays: 45,
  redemptionDays: 30,
  pendingDeleteDays: 5,
  restoreReportDays: 7,
  leastYears: 1,
  stepYears: 1,
  transferYears: 1,
  fixedDays: 60,
  mostYears: 10,
  unanswered: 'approves',
};

/** How each ending's registry treats its names. Generic: RFC 3915 and its registry agreements; country endings: from memory. */
const ENDINGS: Readonly<Record<string, EndingRules>> = {
  uk: { ...GENERIC, lateDays: 90, redemptionDays: 0, pendingDeleteDays: 0, transferYears: 0, fixedDays: 0 },
  de: { ...GENERIC, lateDays: 0, redemptionDays: 30, pendingDeleteDays: 0, transferYears: 0, fixedDays: 0 },
  nl: { ...GENERIC, lateDays: 0, redemptionDays: 40, pendingDeleteDays: 0, unanswered: 'cancels' },
  eu: { ...GENERIC, lateDays: 0, redemptionDays: 40, pendingDeleteDays: 0 },
  ai: { ...GENERIC, leastYears: 2, stepYears: 2, transferYears: 2 },
};

export function endingRules(ending: string): EndingRules {
  return ENDINGS[ending] ?? GENERIC;
}
