/** Ready-made names under which a crawl asks. They are descriptions of a kind of reader, not of any product. */
export interface AgentPreset {
  label: string;
  userAgent: string;
  /** The product token that robots.txt and agent-named rules are read for. */
  token: string;
}

export const agents = {
  self: { label: 'Edge Map', userAgent: 'EdgeMap/0.1', token: 'edgemap' },
  desktop: {
    label: 'A desktop reader',
    userAgent: 'Mozilla/5.0 (X11; Linux x86_64) EdgeMap/0.1 (desktop)',
    token: 'edgemap',
  },
  mobile: {
    label: 'A mobile reader',
    userAgent: 'Mozilla/5.0 (Linux; Android 14; Mobile) EdgeMap/0.1 (mobile)',
    token: 'edgemap',
  },
  search: {
    label: 'A search crawler',
    userAgent: 'Mozilla/5.0 (compatible; EdgeMap/0.1; search crawler)',
    token: 'searchbot',
  },
} as const satisfies Record<string, AgentPreset>;

export type AgentName = keyof typeof agents;
export const defaultAgent: AgentName = 'self';

/** The preset that a user agent and token come from; null when they were written by hand. */
export const presetOf = (userAgent: string, token: string): AgentName | null =>
  (Object.keys(agents) as AgentName[]).find(
    (name) => agents[name].userAgent === userAgent && agents[name].token === token,
  ) ?? null;
