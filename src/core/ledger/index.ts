export { type Arrangement, arrangeRows, matchingRows, sortRows } from './arrange';
export { type LedgerColumns, namesFromColumns } from './columns';
export { indexRules, type KeepingCosts, keepingCosts, type RuleIndex, renewalCost } from './costs';
export { type LedgerAccount, type LedgerName, type LedgerRules, PURPOSES, type Purpose } from './data';
export { type Footing, footingOf } from './footing';
export { type LifeStrip, lifeStrip, type Stretch, type StretchKind, type StripMark } from './lifeStrip';
export { isCaution, type Outlook } from './outlook';
export { type LedgerRow, LOOK_AHEAD_YEARS, type Projection, projectLedger, rowsOn } from './projection';
export { EVERY_NAME, type LedgerView, queryFromView, SORT_KEYS, type SortKey, viewFromQuery } from './view';
