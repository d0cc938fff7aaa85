/** Runs once when a server process starts: its dependencies are made, with the threads that compute beside it. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs' || !process.env.DATABASE_URL) return;
  const [{ deps }, { loadClock }, { openThread }, { LONG }] = await Promise.all([
    import('@/usecases/deps'),
    import('@/usecases/clock'),
    import('@/usecases/thread'),
    import('@/usecases/computing'),
  ]);
  const path = process.env.NAME_LEDGER_THREAD;
  const own = deps({ part: 'app', connections: 16, thread: path ? openThread(path, LONG) : null });
  // A database that is away at this moment is asked again with the first request.
  await loadClock(own).catch((error: unknown) => own.log.warn({ err: error }, 'the clock could not be read'));
}

/** Whatever the framework catches while it answers goes to the log, with the number of the request. */
export async function onRequestError(
  error: unknown,
  _request: unknown,
  context: { routePath?: string },
): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs' || !process.env.DATABASE_URL) return;
  const { deps } = await import('@/usecases/deps');
  deps().log.error({ err: error, route: context.routePath }, 'a page could not be answered');
}
