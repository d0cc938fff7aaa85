export {
  ITEM_STATES,
  type ItemState,
  isOpenRun,
  isStartable,
  MAY_BE_SENT,
  OPEN_RUNS,
  RUN_STATES,
  type RunState,
  STARTABLE,
  UNDER_WAY,
  UNPAID,
  UNSETTLED,
} from './states';
