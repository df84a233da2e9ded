import { addressParts } from '../url';

/** The settings that decide what belongs to a site. */
export interface InsideSettings {
  start: string;
  /** Further hosts that belong to the site, `host` or `host:port`. */
  hosts: readonly string[];
  subdomains: boolean;
  /** Folder that the site is limited to, `/…/`; '' for none. */
  folder: string;
}

/** `www.` dropped; a host with and without it are variants of one site. */
export const bareHost = (host: string) => (host.startsWith('www.') ? host.slice(4) : host);

/**
 * Makes the test for "inside": the hosts of the start address and of `hosts`, each with its http/https and www/bare
 * variants, on request with their subdomains, on request only under a folder. A port that is written is part of the
 * host.
 */
export function insideTest({ start, hosts, subdomains, folder }: InsideSettings): (address: string) => boolean {
  const inside = new Set([addressParts(start).host, ...hosts].map((host) => bareHost(host.toLowerCase())));
  const suffixes = subdomains ? [...inside].map((host) => `.${host}`) : [];
  return (address) => {
    const { host, path } = addressParts(address);
    if (!inside.has(bareHost(host)) && !suffixes.some((suffix) => host.endsWith(suffix))) return false;
    return folder === '' || path.startsWith(folder) || `${path}/` === folder;
  };
}
