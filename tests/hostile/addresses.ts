/** Spellings of addresses that are not public, as pages, redirects and name servers may give them. */

/** Hosts of an address, each of which leads to this machine, its network, or nowhere. */
export const PRIVATE_HOSTS: string[] = [
  // This machine (RFC 1122, 3.2.1.3), in the spellings URLs allow (WHATWG URL, 4.6: hexadecimal, octal, fewer parts).
  '127.0.0.1', '127.0.0.2', '127.255.255.254', '127.1',
  '0x7f.1',
  '0300.0250.0.1',
  '192.168.257',
  '[::ffff:c0a8:1]', '127.0.1', '0x7f.0.0.1', '0x7f000001', '0177.0.0.1', '017700000001', '2130706433', '0x7F.0x0.0x0.0x1', '127.0.0.1.', '①②⑦.⓪.⓪.①', '127。0。0。1',
  '0', '0.0.0.0', '0x0', '00000000000', '0.0.0.0.',
  'localhost', 'LOCALHOST', 'localhost.', 'app.localhost', 'a.b.localhost.', 'ｌｏｃａｌｈｏｓｔ', 'printer.local', 'nas.internal', 'metadata.google.internal',
  // Networks of one's own (RFC 1918), of carriers (RFC 6598), of the link (RFC 3927), of metadata services.
  '10.0.0.1', '10.255.255.255', '0xa.0.0.1', '012.0.0.1', '167772161', '172.16.0.1', '172.31.255.254', '2886729729', '192.168.0.1', '192.168.1.254', '0xc0a80001', '3232235521', '100.64.0.1', '100.127.255.254', '169.254.0.1', '169.254.169.254', '0xa9fea9fe', '2852039166', '0251.0376.0251.0376',
  // Set aside for documentation, tests, groups, everybody (RFC 5737, 2544, 5771, 919, 1112, 6890).
  '192.0.0.1', '192.0.2.1', '198.51.100.7', '203.0.113.7', '198.18.0.1', '198.19.255.254', '224.0.0.1', '239.255.255.255', '240.0.0.1', '255.255.255.255',
  // IPv6: this machine, its link, its site, and IPv4 in its many wrappings (RFC 4291, 4193, 6052, 3056, 4380, 8215).
  '[::1]', '[0:0:0:0:0:0:0:1]', '[::]', '[::ffff:127.0.0.1]', '[::ffff:7f00:1]', '[::ffff:10.0.0.1]', '[::ffff:a9fe:a9fe]', '[::127.0.0.1]', '[::7f00:1]', '[fe80::1]', '[febf::1]', '[fec0::1]', '[fc00::1]', '[fd12:3456::1]', '[ff02::1]', '[64:ff9b::7f00:1]', '[64:ff9b:1::7f00:1]', '[2002:7f00:1::]', '[2002:a00:1::]', '[2001::7f00:1]', '[2001:db8::1]', '[100::1]', '[4000::1]', '[6000::1]', '[8000::1]', '[e000::1]',
]; // prettier-ignore

/** Addresses that are public and stay so. */
export const PUBLIC_ADDRESSES = [
  '9.9.9.9',
  '1.1.1.1',
  '172.15.0.1',
  '172.32.0.1',
  '192.167.1.1',
  '100.128.0.1',
  '2606:4700::1111',
  '2a00:1450::1',
  '2620:fe::fe',
];
