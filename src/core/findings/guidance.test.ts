import { readFileSync, writeFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { settingsSchema } from '../settings';
import { findings, guidance } from '.';
import type { Finding } from '.';

const DOCS = 'docs/FINDINGS.md';
const { thresholds } = settingsSchema.parse({ start: 'https://www.example.org/' });

const section = (finding: Finding) => {
  const { id, name, rule, why, remedy, worthALook } = finding;
  const { ignore, before, after } = guidance[id];
  const select =
    finding.over === 'files' ? '' : `\nAs a selection of ${finding.over}: \`${finding.select(thresholds)}\`\n`;
  return `### ${name}

\`${id}\`${worthALook ? ', worth a look: a rule of thumb, which may be wrong' : ''}

**When it is reported.** ${rule}
${select}
**Why it matters.** ${why}

**How to fix it.** ${remedy}

\`\`\`html
${before}
\`\`\`

becomes

\`\`\`html
${after}
\`\`\`

**When to ignore it.** ${ignore}
`;
};

const document = () => {
  const questions = [...new Set(findings.map(({ question }) => question))];
  const parts = questions.map(
    (question) =>
      `## ${question}\n\n${findings
        .filter((one) => one.question === question)
        .map(section)
        .join('\n')}`,
  );
  return `# Findings

What Edge Map reports of a site, by the question that it belongs to. Thresholds in the selections are those of the default
settings. The same is shown in the application, behind the question mark beside each finding.

${parts.join('\n')}`;
};

describe('the guidance on findings', () => {
  it('says of each of them when to ignore it, with an example', () => {
    expect(Object.keys(guidance).sort()).toEqual(findings.map(({ id }) => id).sort());
    for (const [id, { ignore, before, after }] of Object.entries(guidance)) {
      expect([id, /^\p{Lu}.*\.$/u.test(ignore)]).toEqual([id, true]);
      expect([id, before !== after && before !== '' && after !== '']).toEqual([id, true]);
    }
  });
  it('is what docs/FINDINGS.md says; UPDATE_DOCS=1 writes it there', () => {
    if (process.env.UPDATE_DOCS) writeFileSync(DOCS, document());
    expect(readFileSync(DOCS, 'utf8')).toBe(document());
  });
});
