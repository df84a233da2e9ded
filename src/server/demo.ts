/** The demo website, as a site to try Edge Map on. */
import { mkdir, readFile, writeFile } from 'node:fs/promises';
import { connect } from 'node:net';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { editOf } from '$core/draft';
import type { Edit } from '$core/draft';
import { settingsSchema } from '$core/settings';
import type { CrawlSettings } from '$core/settings';
import { failure } from '$core/errors';

export const DEMO_START = 'https://www.larkfield.example/';
const HOSTS = ['www.larkfield.example', 'larkfield.example', 'staging.larkfield.example'];

/** The settings with which the demo website is crawled. @param port where its server listens on loopback */
export const demoSettings = (port: number): CrawlSettings =>
  settingsSchema.parse({
    start: DEMO_START,
    limit: 5000,
    // The demo's calendar has no end; its shop sorts and filters without adding pages.
    trapLimit: 60,
    overrides: HOSTS.map((host) => ({ host, toHost: '127.0.0.1', toPort: port })),
    acceptCertificates: true,
  });

const at = (path: string) => new URL(path, DEMO_START).href;

/** What somebody has begun to plan for the demo website, as it is some weeks later. */
export const demoEdits: Edit[] = [
  editOf('add_link', at('/collections/'), {
    target: at('/archive-2009/index.html'),
    anchor: 'Our website of 2009',
    placement: 'main',
  }),
  editOf('retarget_link', '*', { target: at('/tickets'), placement: 'footer', value: at('/visit/prices') }),
  editOf('retarget_link', '*', { target: at('/learn/'), placement: 'nav', value: at('/discover/') }),
  editOf('noindex', at('/archive-2009/guestbook.html')),
  editOf('redirect', at('/archive-2009/timetables.html'), { target: at('/visit/opening-hours') }),
];

const folderOf = () => join(process.env.EDGEMAP_DATA ?? '.data', 'demo');

/** From now on the demo website is as it is some weeks later. */
export const ageDemo = (folder = folderOf()): Promise<void> => writeFile(join(folder, 'later'), '');

const WAIT_MS = 20_000;
const LOOK_MS = 200;

const answers = (port: number) =>
  new Promise<boolean>((resolve) => {
    const socket = connect(port, '127.0.0.1');
    socket.once('connect', () => resolve(true)).once('error', () => resolve(false));
    socket.once('close', () => socket.destroy()).once('connect', () => socket.end());
  });

/**
 * Asks `./edgemap` to serve the demo website, from now on and at every start, and waits for it.
 * @returns the port on which it listens
 * @throws operator when it does not start
 */
export async function wakeDemo(folder = folderOf()): Promise<number> {
  await mkdir(folder, { recursive: true });
  await writeFile(join(folder, 'wanted'), '');
  for (const began = Date.now(); Date.now() - began < WAIT_MS; await sleep(LOOK_MS)) {
    const port = Number(await readFile(join(folder, 'listening'), 'utf8').catch(() => ''));
    if (port > 0 && (await answers(port))) return port;
  }
  throw failure(
    'operator',
    'The demo website did not start within 20 seconds. Stop Edge Map and start it with ./edgemap demo, which says why.',
  );
}
