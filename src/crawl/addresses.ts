/** Which IP addresses lead into private networks, and how they are kept from being asked. */
import { lookup } from 'node:dns';
import type { LookupAddress } from 'node:dns';
import { BlockList, isIP } from 'node:net';
import type { LookupFunction } from 'node:net';

/** Not global by the IANA special-purpose address registries (RFC 6890 and its updates). */
const special = new BlockList();
for (const [net, bits] of [
  ['0.0.0.0', 8],
  ['10.0.0.0', 8],
  ['100.64.0.0', 10],
  ['127.0.0.0', 8],
  ['169.254.0.0', 16],
  ['172.16.0.0', 12],
  ['192.0.0.0', 24],
  ['192.0.2.0', 24],
  ['192.168.0.0', 16],
  ['198.18.0.0', 15],
  ['198.51.100.0', 24],
  ['203.0.113.0', 24],
  ['224.0.0.0', 4],
  ['240.0.0.0', 4],
] as const)
  special.addSubnet(net, bits, 'ipv4');
for (const [net, bits] of [
  ['::', 128],
  ['::1', 128],
  ['64:ff9b:1::', 48],
  ['100::', 64],
  ['2001::', 23],
  ['2001:db8::', 32],
  ['2002::', 16],
  ['3fff::', 20],
  ['fc00::', 7],
  ['fe80::', 10],
  ['fec0::', 10],
  ['ff00::', 8],
] as const)
  special.addSubnet(net, bits, 'ipv6');

/** IPv4 addresses that are carried in IPv6 ones (RFC 4291 §2.5.5, RFC 6052 §2.1): the last 32 bits. */
function embeddedIPv4(address: string): string | null {
  const expanded = new URL(`http://[${address}]/`).hostname.slice(1, -1);
  const found = /^(?:::ffff:|64:ff9b::|::)([0-9a-f]{1,4}):([0-9a-f]{1,4})$/.exec(expanded);
  if (!found) return null;
  const [high, low] = [parseInt(found[1], 16), parseInt(found[2], 16)];
  return [high >> 8, high & 255, low >> 8, low & 255].join('.');
}

/** Whether an IP address, as resolved, is loopback, private or otherwise not of the public network. */
export function isPrivateAddress(address: string): boolean {
  const family = isIP(address);
  if (family === 4) return special.check(address, 'ipv4');
  const plain = address.replace(/%.*$/, '');
  if (family !== 6) return true;
  const inner = embeddedIPv4(plain);
  return inner ? special.check(inner, 'ipv4') : special.check(plain, 'ipv6');
}

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
