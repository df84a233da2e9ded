/** The crew of a running crawl: the workers that share its frontier. */
import type { ResultSetHeader, RowDataPacket } from 'mysql2';
import { inTransaction } from './database';
import type { Database, Statement } from './database';
import { RESOURCE_RANK } from './ranks';
import { LEASE_SECONDS } from './sites';

const lease = `current_timestamp(3) + interval ${LEASE_SECONDS} second`;

/** A member's lease ran out and what it held was given to others; it must not store anything more. */
export class LostMembership extends Error {}

/** Adds a worker to the crew of a crawl. @returns its number */
export async function joinCrew(db: Database, crawlId: number, owner: string): Promise<number> {
  const insert = `insert into crew (crawl_id, owner, lease_until) values (?, ?, ${lease})`;
  const [result] = await db.$client.query<ResultSetHeader>(insert, [crawlId, owner]);
  return result.insertId;
}

/** Frees what members hold whose number is given, and removes them. */
async function dismiss(run: Statement, crawlId: number, members: number[]): Promise<void> {
  if (members.length === 0) return;
  const held = 'from frontier where crawl_id = ? and done = 0 and held_by in (?)';
  const [{ pages }] = (await run(`select count(*) as pages ${held} and rank < ${RESOURCE_RANK}`, [
    crawlId,
    members,
  ])) as { pages: number }[];
  await run('update frontier set held_by = null where crawl_id = ? and done = 0 and held_by in (?)', [
    crawlId,
    members,
  ]);
  await run('update crawl set asked = greatest(0, asked - ?) where id = ?', [pages, crawlId]);
  await run('delete from crew where id in (?)', [members]);
}

/** Takes a member out of the crew; what it holds is free again. */
export const leaveCrew = (db: Database, crawlId: number, member: number) =>
  inTransaction(db, async (run) => {
    await run('select id from crawl where id = ? for update', [crawlId]);
    await dismiss(run, crawlId, [member]);
  });

/** Renews a member's lease and takes out those whose lease has run out. @returns how many there are; 0 when it was taken out itself */
export async function beatCrew(db: Database, crawlId: number, member: number): Promise<number> {
  const renew = `update crew set lease_until = ${lease} where id = ? and crawl_id = ?`;
  const [result] = await db.$client.query<ResultSetHeader>(renew, [member, crawlId]);
  if (result.affectedRows === 0) return 0;
  const all = 'select id, lease_until < current_timestamp(3) as gone from crew where crawl_id = ?';
  const [rows] = await db.$client.query<RowDataPacket[]>(all, [crawlId]);
  const gone = rows.filter((row) => row.gone).map((row) => row.id as number);
  if (gone.length)
    await inTransaction(db, async (run) => {
      await run('select id from crawl where id = ? for update', [crawlId]);
      const still = await run('select id from crew where id in (?) and lease_until < current_timestamp(3) for update', [
        gone,
      ]);
      await dismiss(
        run,
        crawlId,
        still.map(({ id }) => id),
      );
    });
  return rows.length - gone.length;
}

/** Makes sure, within a transaction, that a member still belongs to its crew. @throws LostMembership */
export async function assertMember(run: Statement, member: number): Promise<void> {
  const rows = await run('select id from crew where id = ? for update', [member]);
  if (rows.length === 0) throw new LostMembership('Another worker has taken over what this one held.');
}

/** How many workers are in the crew of a crawl. */
export async function crewSize(db: Database, crawlId: number): Promise<number> {
  const count = 'select count(*) as n from crew where crawl_id = ? and lease_until >= current_timestamp(3)';
  return ((await db.$client.query<RowDataPacket[]>(count, [crawlId]))[0] as { n: number }[])[0].n;
}
