export { agents, defaultAgent, presetOf } from './agents';
export type { AgentName, AgentPreset } from './agents';
export { readSettingsFile, settingsFile } from './file';
export type { ReadFile } from './file';
export { followable, formatOverride, noSecrets, parseOverride, secretsSchema, settingsSchema } from './settings';
export type { AddressOverride, CrawlSettings, Followable, Secrets } from './settings';
