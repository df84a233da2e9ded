/** The rows of families of addresses that the trap guard looks at, cuts and lets in. */
import type { RowDataPacket } from 'mysql2';
import type { FamilyJudgement, Sampled } from '$core/traps';
import { inRuns } from '../database';
import type { Database } from '../database';
import { MAX_HOPS, RESOURCE_RANK } from './ranks';

const SAMPLE = 100;
const EXAMPLES = 5;
const RUN = 500;

const unpackFingerprint = (bytes: Buffer | null): [number, number] | null =>
  bytes && [bytes.readUInt32BE(0), bytes.readUInt32BE(4)];

/** Reads and writes the families of one crawl. */
export function familyRows(db: Database, crawlId: number) {
  const query = async <T>(sql: string, values: unknown[]) =>
    (await db.$client.query<RowDataPacket[]>(sql, values))[0] as unknown as T[];
  const countable = `crawl_id = ? and family = ? and rank < ${RESOURCE_RANK} and hops <= ${MAX_HOPS}`;

  const familiesOf = async (sql: string, values: unknown[]) =>
    (
      await query<{ family: Buffer }>(
        `select distinct family from frontier where crawl_id = ? and done = 0 and ${sql}`,
        [crawlId, ...values],
      )
    ).map(({ family }) => family);

  /** How many members were fetched, and how many are cut. */
  const totals = async (family: Buffer) =>
    (
      await query<{ fetched: number; cut: number }>(
        `select cast(sum(done) as signed) as fetched, cast(sum(cut and not done) as signed) as cut
           from frontier where ${countable}`,
        [crawlId, family],
      )
    )[0];

  /** Addresses that were fetched, and what they were like. */
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
    totals,
    sampleOf,
    waiting,
    setCut,
    record,
    count,
    /** Families that have members waiting at a rank. */
    atRank: (rank: number) => familiesOf('cut = 0 and rank = ? and family is not null', [rank]),
    /** Families of which something is cut. */
    withCut: () => familiesOf(`cut = 1 and rank < ${RESOURCE_RANK}`, []),
  };
}
