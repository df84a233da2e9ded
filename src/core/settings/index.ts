export { agents, presetOf } from './agents';
export type { AgentName } from './agents';
export { readSettingsFile, settingsFile } from './file';
export { formatOverride, knownLimitOf, noSecrets, parseOverride, secretsSchema, settingsSchema } from './settings';
export type { AddressOverride, CrawlSettings, Followable, Secrets } from './settings';
