import { failure } from '$core/errors';
/**
 * Whether this server fetches from loopback and private addresses: as EDGEMAP_PRIVATE says (`allow` or `refuse`), else
 * only while the application itself listens on loopback.
 * @throws operator when EDGEMAP_PRIVATE says something else
 */
export function allowsPrivate(env: Record<string, string | undefined> = process.env): boolean {
  const said = env.EDGEMAP_PRIVATE;
  if (said === 'allow' || said === 'refuse') return said === 'allow';
  if (said !== undefined) throw failure('operator', `EDGEMAP_PRIVATE is “allow” or “refuse”, not “${said}”.`);
  return /^(127(\.\d+){3}|localhost|\[?::1\]?)$/.test(env.HOST ?? '127.0.0.1');
}
