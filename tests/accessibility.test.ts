/** What assistive technology meets: axe-core finds nothing serious on any screen, in either theme. */
import { createRequire } from 'node:module';
import { readFileSync } from 'node:fs';
import type { ElementHandle, Page } from 'puppeteer-core';
import { beforeAll, describe, expect, it } from 'vitest';
import { crawledDemo, SITE } from './support/crawledDemo';

const demo = crawledDemo({ isTwice: true, withTexts: true });
const { open } = demo;

describe('everybody can use it', () => {
  const axe = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');
  const screens: [string, string, Record<string, string>][] = [
    ['all sites', '/', {}],
    ['the settings', '/settings', { site: '1' }],
    ['Overview', 'overview', {}],
    ['Reach', 'reach', { page: `${SITE}/visit/prices` }],
    ['what links say', 'words', { item: `${SITE}/learn/worksheets` }],
    ['words by wording', 'words', { order: 'words' }],
    ['words by page', 'words', { order: 'page' }],
    ['words of sections', 'words', { picture: 'sections' }],
    ['links to add', 'words', { picture: 'from', item: `${SITE}/stories/the-six-week-bus` }],
    ['a text of one’s own', 'words', { picture: 'given' }],
    ['words that are found', 'words', { picture: 'search', words: 'tram' }],
    ['a map in bands', 'maps', {}],
    ['a map of routes', 'maps', { picture: 'routes' }],
    ['a map of folders', 'maps', { picture: 'folders', shape: 'whole' }],
    ['a map of links', 'maps', { picture: 'links', page: `${SITE}/visit/` }],
    ['links to move', 'words', { picture: 'moves' }],
    ['places to link from', 'words', { picture: 'places', item: `${SITE}/stories/night-buses-of-the-coast` }],
    ['what has no route', 'reach', { picture: 'lost', reader: 'crawler' }],
    ['the gates', 'reach', { picture: 'gates', select: 'depht' }],
    ['the readers', 'reach', { picture: 'readers', page: `${SITE}/visit/prices`, part: 'in' }],
    ['Roll call', 'roll-call', {}],
    ['the folders of Roll call', 'roll-call', { picture: 'folders', select: 'seen in sitemap' }],
    ['the sitemaps', 'roll-call', { picture: 'sitemaps' }],
    ['the import of a list', 'roll-call', {}],
    ['Rules', 'rules', {}],
    ['the robots bench', 'rules', { picture: 'robots' }],
    ['the rules of pages', 'rules', { picture: 'page-rules' }],
    ['the canonicals', 'rules', { picture: 'canonicals' }],
    ['the variants', 'rules', { picture: 'variants' }],
    ['the editions', 'rules', { picture: 'hreflang' }],
    ['the answer sheet', 'rules', { picture: 'answers' }],
    ['Flow', 'flow', {}],
    ['the findings of Flow', 'flow', { picture: 'findings', list: 'edits', select: 'kind = click' }],
    [
      'the leaks',
      'flow',
      { picture: 'leaks', list: 'anchors', page: `${SITE}/visit/prices`, part: 'source', at: '20:5' },
    ],
    ['sections', 'flow', { picture: 'links', list: 'hosts' }],
    ['Change', 'change', {}],
    ['the sections of Change', 'change', { order: 'section', pair: 'redirect' }],
    ['what became of pages', 'change', { picture: 'pages', page: `${SITE}/visit/opening-hours`, part: 'history' }],
    ['the edits of links', 'change', { picture: 'links', list: 'changed_edits', select: '' }],
    ['the findings of Change', 'change', { picture: 'findings' }],
    ['the timeline', 'change', { picture: 'timeline' }],
    ['a draft', 'draft', {}],
    ['what a draft hands over', 'draft/hand-over', {}],
    ['the dialog of edits', 'reach', { page: `${SITE}/visit/prices` }],
    ['what a draft changes', 'difference:reach', { select: 'not same' }],
    ['a page of its own', 'page', { page: `${SITE}/visit/prices`, part: 'facts' }],
  ];
  /** Opens the dialog that imports a file, with one in it. */
  const importing = async (page: Page) => {
    const picker = (await page.$('input[type=file]')) as ElementHandle<HTMLInputElement>;
    await picker.uploadFile('demo/imports/campaigns.csv');
    await page.waitForSelector('dialog[open] table');
  };
  const editing = async (page: Page) => {
    await page.waitForSelector('[data-key=e]');
    await page.keyboard.press('e');
    await page.waitForSelector('dialog[open] form');
  };
  const prepared: Record<string, (page: Page) => Promise<void>> = {
    'the import of a list': importing,
    'the dialog of edits': editing,
  };
  beforeAll(async () => {
    const { base } = demo.now();
    const at = (path: string) => `${SITE}${path}`;
    const edits = [
      {
        op: 'add_link',
        source: at('/collections/'),
        target: at('/archive-2009/index.html'),
        anchor: 'Our old website',
      },
      { op: 'noindex', source: at('/visit/prices') },
    ];
    const body = { do: 'step', crawl: Number(/\d+$/.exec(base)![0]), version: 0, step: { kind: 'add', edits } };
    const answer = await fetch(new URL('/sites/1/draft', base), {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
    expect(answer.status).toBe(200);
  });
  it.each(screens)('%s, light and dark', async (name, path, query) => {
    const { page } = demo.now();
    for (const theme of ['paper', 'night']) {
      await page.evaluateOnNewDocument((name) => localStorage.setItem('edgemap.theme', name), theme);
      const [screen, version] = path.split(':').reverse();
      await open(version ? `${new URL(demo.now().base).pathname}-${version}/${screen}` : screen, query);
      await prepared[name]?.(page);
      await page.evaluate(axe);
      const found = await page.evaluate(async () => {
        const { axe } = window as unknown as {
          axe: {
            run: (
              options: object,
            ) => Promise<{ violations: { id: string; impact: string; nodes: { html: string }[] }[] }>;
          };
        };
        const { violations } = await axe.run({ resultTypes: ['violations'] });
        return violations
          .filter(({ impact }) => impact === 'serious' || impact === 'critical')
          .map(
            ({ id, nodes }) =>
              `${id}: ${nodes
                .slice(0, 3)
                .map(({ html }) => html.slice(0, 160))
                .join(' | ')}`,
          );
      });
      expect([theme, ...found]).toEqual([theme]);
    }
  });
});
