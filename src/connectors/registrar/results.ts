/** Result codes of EPP that say what to do next. Source: RFC 5730 section 3. */
export const EPP_RESULT = {
  valueRange: 2004,
  billingFailure: 2104,
  authenticationError: 2200,
  notAuthorized: 2201,
  wrongCode: 2202,
  alreadyPending: 2300,
  nothingPending: 2301,
  exists: 2302,
  notThere: 2303,
  commandFailed: 2400,
  commandFailedAndClosed: 2500,
  authenticationErrorAndClosed: 2501,
} as const;

/** The sponsor is another, or the name is not there. */
export const NOT_OURS: ReadonlySet<number> = new Set([EPP_RESULT.notAuthorized, EPP_RESULT.notThere]);
