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
