/** Network addresses and ranges of them. */
import ipaddr from 'ipaddr.js';

type NetworkAddress = ipaddr.IPv4 | ipaddr.IPv6;

/** A network address, version 4 where it is one in the clothes of the other (RFC 4291 §2.5.5.2); null when it is none. */
export function networkAddress(text: string): NetworkAddress | null {
  // With a zero in front some read a part as octal: that is no address.
  if (!ipaddr.IPv4.isValidFourPartDecimal(text) && !ipaddr.IPv6.isValid(text)) return null;
  return ipaddr.process(text);
}

/** Whether an address is in a range. One of version 4 is in the ranges of version 6 that hold it as that. */
export function isWithin(address: NetworkAddress, range: NonNullable<ReturnType<typeof rangeOf>>): boolean {
  if (address.kind() === range[0].kind()) return address.match(range);
  return (
    address instanceof ipaddr.IPv4 && address.toIPv4MappedAddress().match(range as [ipaddr.IPv6, number])
  );
}

/** A range of network addresses: CIDR notation (RFC 4632, RFC 4291), or one address. Null when it is neither. */
export function rangeOf(text: string): [NetworkAddress, number] | null {
  const [network = ''] = text.split('/');
  if (!ipaddr.IPv4.isValidFourPartDecimal(network) && !ipaddr.IPv6.isValid(network)) return null;
  if (ipaddr.isValidCIDR(text)) return ipaddr.parseCIDR(text);
  if (network !== text) return null;
  const address = ipaddr.parse(text);
  return [address, address.kind() === 'ipv4' ? 32 : 128];
}
