/** Which IP addresses lead into private networks, and how they are kept from being asked. */
import { lookup } from 'node:dns';
import type { LookupAddress } from 'node:dns';
import type { LookupFunction } from 'node:net';
import ipaddr from 'ipaddr.js';

/**
 * Whether an IP address, as resolved, is loopback, private or otherwise not of the public network, by the IANA
 * registries of special-purpose addresses (RFC 6890 and its updates). So are all that carry an IPv4 address for a
 * translator or a tunnel, which may lead anywhere, but for the mapped form, which is that address.
 */
export const isPrivateAddress = (address: string): boolean =>
  !ipaddr.isValid(address) || ipaddr.process(address).range() !== 'unicast';

/** The code of the error with which a connection to a private address is refused. */
export const PRIVATE_CODE = 'EDGEMAP_PRIVATE';
export const privateError = () => Object.assign(new Error('The address is private.'), { code: PRIVATE_CODE });

/**
 * As `dns.lookup`, but a host that resolves to any private address is refused: which of them is used is not ours to
 * say.
 */
export const publicLookup: LookupFunction = (hostname, options, callback) => {
  lookup(hostname, { ...options, all: true }, (error, found) => {
    const addresses = found as unknown as LookupAddress[];
    if (error) return callback(error, '', 0);
    if (addresses.length === 0 || addresses.some(({ address }) => isPrivateAddress(address)))
      return callback(privateError(), '', 0);
    if (options.all) callback(null, addresses as never);
    else callback(null, addresses[0].address, addresses[0].family);
  });
};
