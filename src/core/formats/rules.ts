/** The tables about rules as CSV: canonicals, variants, hreflang, page-level rules, and the answer sheet. */
import { verdicts } from '../facts';
import {
  answerSheetOf,
  canonicalsOf,
  hreflangSetsOf,
  pageRuleGroupsOf,
  pageRulesOf,
  variantGroupsOf,
  variantRows,
} from '../rules';
import { addressAt } from '../snapshot';
import { csvPieces } from './csv';
import type { Cell } from './csv';
import type { View } from '../view';

const verdictAt = ({ column }: View, page: number) => (page < 0 ? '' : verdicts[column('verdict')[page]]);

function canonicalRows(snapshot: View): Cell[][] {
  const sizes = new Map<string, number>();
  const rows = canonicalsOf(snapshot);
  for (const { end } of rows) sizes.set(end, (sizes.get(end) ?? 0) + 1);
  return [
    ['url', 'verdict', 'canonical', 'outcome', 'flags', 'canonical_verdict', 'cluster', 'cluster_size'],
    ...rows.map(({ page, canonical, target, outcome, flags, end }) => [
      addressAt(snapshot, page),
      verdictAt(snapshot, page),
      canonical,
      outcome,
      flags.join('|'),
      verdictAt(snapshot, target),
      end,
      sizes.get(end)!,
    ]),
  ];
}

const variantTable = (snapshot: View): Cell[][] => [
  ['group', 'differs_in', 'url', 'status', 'verdict', 'leads_to', 'linked', 'listed', 'settles_on'],
  ...variantGroupsOf(snapshot).flatMap((group, i) =>
    variantRows(snapshot, group).map(({ page, status, verdict, leadsTo, linked, listed }) => [
      i + 1,
      group.kinds.join('|'),
      addressAt(snapshot, page),
      status,
      verdict,
      leadsTo,
      linked,
      listed,
      group.settles,
    ]),
  ),
];

const hreflangTable = (snapshot: View): Cell[][] => [
  ['set', 'url', 'language', 'target', 'target_verdict', 'source', 'faults', 'page_faults'],
  ...hreflangSetsOf(snapshot).flatMap(({ links, pageFaults }, i) =>
    links.map(({ page, language, target, targetPage, source, faults }) => [
      i + 1,
      addressAt(snapshot, page),
      language,
      target,
      verdictAt(snapshot, targetPage),
      source,
      faults.join('|'),
      (pageFaults.get(page) ?? []).join('|'),
    ]),
  ),
];

function pageRuleTable(snapshot: View): Cell[][] {
  const keyOf = ({ agent, value, source }: { agent: string; value: string; source: string }) =>
    `${agent}\n${value}\n${source}`;
  const scopes = new Map(pageRuleGroupsOf(snapshot).map((group) => [keyOf(group), group.scope]));
  return [
    ['url', 'agent', 'value', 'source', 'line', 'outweighed', 'scope'],
    ...pageRulesOf(snapshot).map((rule) => [
      addressAt(snapshot, rule.page),
      rule.agent || '*',
      rule.value,
      rule.source,
      rule.line,
      rule.isOutweighed,
      scopes.get(keyOf(rule))!,
    ]),
  ];
}

const sheetTable = (snapshot: View, start: string): Cell[][] => [
  ['question', 'answer', 'against', 'of', 'unit', 'example', 'selection'],
  ...answerSheetOf(snapshot, start).map(({ question, answer, count, of, unit, example, select }) => [
    question,
    answer,
    count,
    of,
    unit,
    example,
    select,
  ]),
];

/** The tables about rules, by the names of their files. */
export const ruleTables = (snapshot: View, start: string): Record<string, Iterable<string>> => ({
  'canonicals.csv': csvPieces(canonicalRows(snapshot)),
  'variants.csv': csvPieces(variantTable(snapshot)),
  'hreflang.csv': csvPieces(hreflangTable(snapshot)),
  'page_rules.csv': csvPieces(pageRuleTable(snapshot)),
  'answer_sheet.csv': csvPieces(sheetTable(snapshot, start)),
});

const cell = (text: string) => text.replaceAll('|', '\\|').replaceAll('\n', ' ');

/** The answer sheet as a table of Markdown. */
export function answerSheetMarkdown(snapshot: View, start: string): string {
  const rows = answerSheetOf(snapshot, start).map(({ question, answer, count, of, unit, example }) =>
    [question, answer, of ? `${count} of ${of} ${unit} against` : '', example ?? ''].map(cell).join(' | '),
  );
  const head = ['Question | Answer | Number | Example', '--- | --- | --- | ---'];
  return `# ${new URL(start).host}\n\n${[...head, ...rows].map((row) => `| ${row} |`).join('\n')}\n`;
}
