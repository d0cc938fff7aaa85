/** Runs once when a server process starts. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs' || !process.env.DATABASE_URL) return;
  const [{ deps }, { loadClock }] = await Promise.all([import('@/usecases/deps'), import('@/usecases/clock')]);
  await loadClock(deps());
}
