/** The trap guard: keeps families of addresses that grow without end from eating a crawl (src/core/traps). */
import { desc, eq } from 'drizzle-orm';
import { familyAllowance, familyOf, judgeFamily } from '$core/traps';
import type { Database } from '../database';
import { trap } from '../database/schema';
import { familyRows } from './familyRows';

/** Members of one family that wait at the same time, at most, are looked at in one go. */
const MAX_OPEN = 100_000;

/**
 * Makes the review that whoever leads a crawl calls before it lets a rank begin. Members of a large family beyond what
 * it is allowed are cut, the first by address being kept, so that the same site is always cut at the same places; they
 * are let in again when its pages turn out to differ.
 * @param limit how many of a family may be fetched before it must show that its pages differ
 */
export function trapReview(db: Database, crawlId: number, limit: number) {
  /** Large families that need not be looked at again before they have so many members. */
  const fineUntil = new Map<string, number>();
  /** Families of which something was cut before too little was known to judge them. */
  let pending = new Set<string>();
  const rows = familyRows(db, crawlId);

  /** Judges a family that has grown beyond the limit, and cuts or lets in what follows from that. */
  async function look(family: Buffer): Promise<void> {
    const { fetched, cut } = await rows.totals(family);
    const { addresses, sample } = await rows.sampleOf(family);
    const open = await rows.waiting(family, 0, MAX_OPEN);
    const example = addresses[0] ?? open[0]?.address;
    if (!example) return;
    const kind = familyOf(example)!;
    const judgement = judgeFamily({ family: kind, sample }, limit);
    const allowance = familyAllowance(judgement, fetched, limit);
    const room = Math.max(0, allowance - fetched);
    const out = open.slice(room);
    const into = cut && room > open.length ? await rows.waiting(family, 1, room - open.length) : [];
    await rows.setCut(out, 1);
    await rows.setCut(into, 0);
    const cutNow = cut + out.length - into.length;
    const key = family.toString('hex');
    fineUntil.set(key, judgement.trap === false && cutNow === 0 ? allowance : 0);
    if (cutNow > 0 && judgement.trap !== true) pending.add(key);
    await rows.record(family, kind.pattern, judgement, fetched, cutNow);
  }

  return {
    /** Looks at the families that have members waiting at a rank that is to begin. */
    async before(rank: number): Promise<void> {
      for (const { family, known } of await rows.count(await rows.atRank(rank)))
        if (known > Math.max(limit, fineUntil.get(family.toString('hex')) ?? 0)) await look(family);
    },

    /** Looks again at families that could not be judged, now that more of their pages were fetched. */
    async after(): Promise<void> {
      const unjudged = pending;
      pending = new Set();
      for (const key of unjudged) await look(Buffer.from(key, 'hex'));
    },

    /** Takes up what an earlier run of the crawl has cut. */
    async resume(): Promise<void> {
      for (const family of await rows.withCut()) await look(family);
    },
  };
}

export type TrapReview = ReturnType<typeof trapReview>;

/** The families that were cut in a crawl, those that had grown most first. */
export const trapsOf = (db: Database, crawlId: number, limit = 100) =>
  db.select().from(trap).where(eq(trap.crawlId, crawlId)).orderBy(desc(trap.cut), trap.pattern).limit(limit);
