/** How much the texts of pages are alike, by the fingerprints of their main content. */
import { and, eq, inArray } from 'drizzle-orm';
import { hashOf } from '../database';
import type { Database } from '../database';
import { page, url } from '../database/schema';

const BITS = 64;

function differingBits(a: Uint8Array, b: Uint8Array): number {
  let bits = 0;
  for (let i = 0; i < a.length; i++) for (let left = a[i] ^ b[i]; left; left &= left - 1) bits++;
  return bits;
}

/**
 * Compares pages of a crawl with one of them.
 * @param addresses at most some hundreds
 * @returns for each address the part of the 64 bits of its fingerprint that agrees, half of which do by chance: 1 for
 *   the
 *   same text; null where one of the two has none
 */
export async function likenessTo(
  db: Database,
  { id, siteId }: { id: number; siteId: number },
  to: string,
  addresses: readonly string[],
): Promise<Map<string, number | null>> {
  const rows = await db
    .select({ address: url.text, fingerprint: page.fingerprint })
    .from(page)
    .innerJoin(url, eq(url.id, page.urlId))
    .where(
      and(
        eq(page.crawlId, id),
        eq(url.siteId, siteId),
        inArray(
          url.hash,
          [to, ...addresses].map((address) => hashOf(address)),
        ),
      ),
    );
  const prints = new Map(rows.map(({ address, fingerprint }) => [address, fingerprint]));
  const own = prints.get(to);
  return new Map(
    addresses.map((address) => {
      const other = prints.get(address);
      return [address, own && other ? 1 - differingBits(own, other) / BITS : null];
    }),
  );
}
