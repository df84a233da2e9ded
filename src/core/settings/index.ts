export { formatOverride, parseOverride, PRODUCT_TOKEN, settingsSchema, USER_AGENT } from './settings';
export type { AddressOverride, CrawlSettings } from './settings';
