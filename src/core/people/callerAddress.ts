const ADDRESS = /^[\da-f.:]{2,45}$/i;

/** An IPv4 address is written the same, however the socket was opened. */
export const plainAddress = (address: string | undefined): string => (address ?? '').replace(/^::ffff:/, '');

/**
 * From where a request comes: from the proxy in front, the last address that it has added to X-Forwarded-For; what stands before that anybody
 * can write. Whoever comes by another way is believed nothing.
 */
export function callerAddress(
  remote: string | undefined,
  forwardedFor: string | readonly string[] | undefined,
  proxy: string | null,
): string {
  const own = plainAddress(remote);
  if (proxy === null || own !== proxy) return own;
  const all = typeof forwardedFor === 'string' ? forwardedFor : (forwardedFor ?? []).join(',');
  const said = all.split(',').at(-1)?.trim() ?? '';
  return ADDRESS.test(said) ? said : own;
}
