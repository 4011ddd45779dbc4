import ipaddr from 'ipaddr.js';

/**
 * What tries from an address are counted under: an IPv4 address as it is, of an IPv6 address its /64,
 * since whoever has one has all of that (RFC 6177). What is no address counts as itself.
 * @example addressKey('2001:db8::7') // => '2001:db8:0:0::/64'
 */
export function addressKey(address: string): string {
  if (!ipaddr.isValid(address)) return address;
  const parsed = ipaddr.process(address);
  if (parsed instanceof ipaddr.IPv4) return parsed.toString();
  return `${parsed.parts
    .slice(0, 4)
    .map((part) => part.toString(16))
    .join(':')}::/64`;
}
