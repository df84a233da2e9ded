/** The trap guard: keeps families of addresses that grow without end from eating a crawl (src/core/traps). */
import type { RowDataPacket } from 'mysql2';
import { desc, eq } from 'drizzle-orm';
import { familyAllowance, familyOf, judgeFamily } from '$core/traps';
import type { FamilyJudgement, Sampled } from '$core/traps';
import { inRuns } from '../database';
import type { Database } from '../database';
import { trap } from '../database/schema';
import { MAX_HOPS, RESOURCE_RANK } from './ranks';

const SAMPLE = 100;
const EXAMPLES = 5;
const RUN = 500;
/** Members of one family that wait at the same time, at most, are looked at in one go. */
const MAX_OPEN = 100_000;

const unpackFingerprint = (bytes: Buffer | null): [number, number] | null =>
  bytes && [bytes.readUInt32BE(0), bytes.readUInt32BE(4)];

/**
 * Makes the review that whoever leads a crawl calls before it lets a rank begin. Members of a large family beyond what it
 * is allowed are cut, the first by address being kept, so that the same site is always cut at the same places; they are
 * let in again when its pages turn out to differ.
 * @param limit how many of a family may be fetched before it must show that its pages differ
 */
export function trapReview(db: Database, crawlId: number, limit: number) {
  /** Large families that need not be looked at again before they have so many members. */
  const fineUntil = new Map<string, number>();
  /** Families of which something was cut before too little was known to judge them. */
  let pending = new Set<string>();
  const query = async <T>(sql: string, values: unknown[]) =>
    (await db.$client.query<RowDataPacket[]>(sql, values))[0] as unknown as T[];
  const countable = `crawl_id = ? and family = ? and rank < ${RESOURCE_RANK} and hops <= ${MAX_HOPS}`;

  async function sampleOf(family: Buffer) {
    const rows = await query<{ address: string; html: number; status: number; fingerprint: Buffer | null }>(
      `select u.text as address, p.html, p.status, p.fingerprint
         from frontier f join page p on p.crawl_id = f.crawl_id and p.url_id = f.url_id join url u on u.id = f.url_id
        where f.crawl_id = ? and f.family = ? and f.done = 1 and p.fetched_at is not null order by f.url_id desc limit ${SAMPLE}`,
      [crawlId, family],
    );
    const sample = rows.map(({ html, status, fingerprint }): Sampled => {
      if (status !== 200) return null;
      return html ? unpackFingerprint(fingerprint) : 'file';
    });
    return { addresses: rows.map(({ address }) => address), sample };
  }

  /** Addresses of a family that wait, first by address. */
  const waiting = (family: Buffer, cut: 0 | 1, most: number) =>
    query<{ id: number; address: string }>(
      `select f.url_id as id, u.text as address from frontier f join url u on u.id = f.url_id
        where ${countable.replace(/(crawl_id|family|rank|hops)/g, 'f.$1')} and f.done = 0 and f.held_by is null and f.cut = ?
        order by f.rank, u.text limit ?`,
      [crawlId, family, cut, most],
    );

  async function setCut(rows: readonly { id: number }[], cut: 0 | 1) {
    for (const part of inRuns(rows, RUN)) {
      const ids = part.map(({ id }) => id);
      await db.$client.query('update frontier set cut = ? where crawl_id = ? and url_id in (?)', [cut, crawlId, ids]);
    }
  }

  async function record(family: Buffer, pattern: string, judgement: FamilyJudgement, fetched: number, cut: number) {
    if (!judgement.trap || cut === 0) {
      await db.$client.query('delete from trap where crawl_id = ? and family = ?', [crawlId, family]);
      return;
    }
    const examples = (await waiting(family, 1, EXAMPLES)).map(({ address }) => address);
    const row = [crawlId, family, pattern, JSON.stringify(judgement.reason), fetched, cut, JSON.stringify(examples)];
    await db.$client.query(
      `insert into trap (crawl_id, family, pattern, reason, fetched, cut, examples) values (?)
        on duplicate key update reason = values(reason), fetched = values(fetched), cut = values(cut), examples = values(examples)`,
      [row],
    );
  }

  /** Judges a family that has grown beyond the limit, and cuts or lets in what follows from that. */
  async function look(family: Buffer): Promise<void> {
    const [{ fetched, cut }] = await query<{ fetched: number; cut: number }>(
      `select cast(sum(done) as signed) as fetched, cast(sum(cut and not done) as signed) as cut
         from frontier where ${countable}`,
      [crawlId, family],
    );
    const { addresses, sample } = await sampleOf(family);
    const open = await waiting(family, 0, MAX_OPEN);
    const example = addresses[0] ?? open[0]?.address;
    if (!example) return;
    const kind = familyOf(example)!;
    const judgement = judgeFamily({ family: kind, sample }, limit);
    const allowance = familyAllowance(judgement, fetched, limit);
    const room = Math.max(0, allowance - fetched);
    const out = open.slice(room);
    const into = cut && room > open.length ? await waiting(family, 1, room - open.length) : [];
    await setCut(out, 1);
    await setCut(into, 0);
    const cutNow = cut + out.length - into.length;
    const key = family.toString('hex');
    fineUntil.set(key, judgement.trap === false && cutNow === 0 ? allowance : 0);
    if (cutNow > 0 && judgement.trap !== true) pending.add(key);
    await record(family, kind.pattern, judgement, fetched, cutNow);
  }

  /** How many members of families are known. */
  async function count(families: Buffer[]): Promise<{ family: Buffer; known: number }[]> {
    const counts: { family: Buffer; known: number }[] = [];
    for (const part of inRuns(families, RUN))
      counts.push(
        ...(await query<{ family: Buffer; known: number }>(
          `select family, count(*) as known from frontier
            where crawl_id = ? and family in (?) and rank < ${RESOURCE_RANK} and hops <= ${MAX_HOPS} group by family`,
          [crawlId, part],
        )),
      );
    return counts;
  }

  return {
    /** Looks at the families that have members waiting at a rank that is to begin. */
    async before(rank: number): Promise<void> {
      const here = await query<{ family: Buffer }>(
        `select distinct family from frontier
          where crawl_id = ? and done = 0 and cut = 0 and rank = ? and family is not null`,
        [crawlId, rank],
      );
      for (const { family, known } of await count(here.map(({ family }) => family)))
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
      const cut = `select distinct family from frontier where crawl_id = ? and done = 0 and cut = 1 and rank < ${RESOURCE_RANK}`;
      for (const { family } of await query<{ family: Buffer }>(cut, [crawlId])) await look(family);
    },
  };
}

export type TrapReview = ReturnType<typeof trapReview>;

/** The families that were cut in a crawl, those that had grown most first. */
export const trapsOf = (db: Database, crawlId: number, limit = 100) =>
  db.select().from(trap).where(eq(trap.crawlId, crawlId)).orderBy(desc(trap.cut), trap.pattern).limit(limit);
