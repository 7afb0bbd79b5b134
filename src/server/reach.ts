/**
 * Who can reach this installation, by its settings: where it listens, under which names, and how people sign in. Beyond
 * its own machine it lets in only whoever has signed in.
 */
import { BlockList, isIP } from 'node:net';
import * as v from 'valibot';
import { isLoopback } from '../../server/inner.mjs';

export interface Proxy {
  /** In which a proxy names who has signed in, in small letters. */
  readonly header: string;
  /** As the settings give them. */
  readonly addresses: readonly string[];
  /** Whether a connection comes from the proxy. */
  trusts(address: string): boolean;
}

export interface ServerReach {
  /** Where it listens. */
  readonly host: string;
  readonly port: number;
  /** Names besides loopback under which it answers. */
  readonly names: readonly string[];
  /** That authors sign in with; null where there is none. */
  readonly passphrase: string | null;
  readonly proxy: Proxy | null;
  /** Whether authors sign in at all. */
  readonly isGuarded: boolean;
}

export type ReachResult =
  { readonly ok: true; readonly reach: ServerReach } | { readonly ok: false; readonly problem: string };

/** ASVS 4.0.3, 2.1.1. */
const LEAST_CHARACTERS = 12;

const SettingsSchema = v.object({
  HOST: v.optional(v.string(), ''),
  PORT: v.optional(
    v.pipe(
      v.string(),
      v.transform((text) => Number(text || 4321)),
      v.integer(),
      v.minValue(0),
      v.maxValue(65_535),
    ),
    '4321',
  ),
  JOLLY_FORK_HOSTS: v.optional(v.string(), ''),
  JOLLY_FORK_PASSPHRASE: v.optional(v.string(), ''),
  JOLLY_FORK_PROXY_HEADER: v.optional(v.pipe(v.string(), v.trim(), v.toLowerCase()), ''),
  JOLLY_FORK_PROXY_ADDRESSES: v.optional(v.string(), ''),
});

/** Reads the settings from the environment; `problem` is for whoever starts the server. */
export function readReach(environment: Readonly<Record<string, string | undefined>>): ReachResult {
  const no = (problem: string): ReachResult => ({ ok: false, problem });
  const read = v.safeParse(SettingsSchema, environment);
  if (!read.success)
    return no(`PORT is "${environment.PORT}": give a number from 1 to 65535, like PORT=4400 npm start.`);
  const settings = read.output;
  const host = settings.HOST || '127.0.0.1';
  const names = listed(settings.JOLLY_FORK_HOSTS);
  const passphrase = settings.JOLLY_FORK_PASSPHRASE || null;
  if (passphrase !== null && [...passphrase.normalize('NFKC')].length < LEAST_CHARACTERS)
    return no(
      `JOLLY_FORK_PASSPHRASE has fewer than ${LEAST_CHARACTERS} characters, which can be guessed: take a few words.`,
    );
  const addresses = listed(settings.JOLLY_FORK_PROXY_ADDRESSES);
  const header = settings.JOLLY_FORK_PROXY_HEADER;
  if ((header === '') !== (addresses.length === 0))
    return no(
      'A proxy that signs people in wants both: JOLLY_FORK_PROXY_HEADER, the header in which it names them, and JOLLY_FORK_PROXY_ADDRESSES, the addresses from which that is believed.',
    );
  if (header !== '' && !/^[a-z0-9-]{1,100}$/.test(header))
    return no(`JOLLY_FORK_PROXY_HEADER is "${header}", which is no name of a header, like X-Forwarded-User.`);
  const known = new BlockList();
  for (const address of addresses)
    if (!add(known, address))
      return no(
        `JOLLY_FORK_PROXY_ADDRESSES has "${address}": give addresses like 10.0.0.2, or ranges like 10.0.0.0/24.`,
      );
  const proxy =
    header === '' ? null : { header, addresses, trusts: (address: string) => isIn(known, address) };
  const isGuarded = passphrase !== null || proxy !== null;
  const beyond = isLoopback(host) ? names.find((name) => !isLoopback(withoutPort(name))) : host;
  if (beyond !== undefined && !isGuarded)
    return no(
      `${beyond === host ? 'HOST' : 'JOLLY_FORK_HOSTS'} is "${beyond}", so others than this machine could reach Jolly Fork and change everything. Set JOLLY_FORK_PASSPHRASE to at least ${LEAST_CHARACTERS} characters for authors to sign in with, or put it behind a proxy that signs people in (docs/security.md says how).`,
    );
  return { ok: true, reach: { host, port: settings.PORT, names, passphrase, proxy, isGuarded } };
}

/** Names under which it answers besides loopback: those given, and the addresses at which it listens (`own`). */
export function hostsOf({ host, names }: ServerReach, own: readonly string[]): string[] {
  const addresses = isEverywhere(host) ? own : isIP(host) === 0 ? [] : [host];
  return [...names, ...addresses.map(inAddress)];
}

/** What is told at the start: its addresses, and who gets in there. `own`: the machine's addresses. */
export function whoCanReach(
  { host, port, names, passphrase, proxy }: ServerReach,
  own: readonly string[],
): string {
  const isHere = isLoopback(host);
  const signing = [
    ...(passphrase === null ? [] : ['Authors sign in with the passphrase.']),
    ...(proxy === null
      ? []
      : [
          `Whom the proxy at ${proxy.addresses.join(', ')} names in “${proxy.header}” counts as signed in; from elsewhere that header counts for nothing.`,
        ]),
  ];
  const links = signing.length === 0 ? [] : ["Reviewers' links open without signing in."];
  if (isHere)
    return [
      signing.length === 0
        ? 'Only this machine reaches it, and whoever uses this machine may do everything.'
        : `Only this machine reaches it${names.length === 0 ? '' : `, and whoever a proxy on it lets through to ${names.join(', ')}`}.`,
      ...signing,
      ...links,
    ].join(' ');
  const at = (isEverywhere(host) ? own.filter((address) => !isLoopback(address)) : [host])
    .map((address) => `http://${inAddress(address)}:${port}/`)
    .join(', ');
  return [
    `Whoever is in the same network reaches it${at === '' ? '' : `, at ${at}`}.`,
    ...signing,
    ...links,
    'Nothing is encrypted on the way: in a network that is not yours alone, put a proxy with TLS before it.',
  ].join(' ');
}

const listed = (text: string) => text.split(',').flatMap((part) => part.trim() || []);

const isEverywhere = (host: string) => host === '0.0.0.0' || host === '::';

const inAddress = (address: string) => (isIP(address) === 6 ? `[${address}]` : address);

const withoutPort = (name: string) => (isIP(name) === 6 ? name : name.replace(/:\d+$/, ''));

function add(list: BlockList, address: string): boolean {
  const [net = '', bits] = address.split('/');
  const family = isIP(net);
  if (family === 0) return false;
  const type = family === 6 ? 'ipv6' : 'ipv4';
  if (bits === undefined) list.addAddress(net, type);
  else if (/^\d{1,3}$/.test(bits) && Number(bits) <= (family === 6 ? 128 : 32))
    list.addSubnet(net, Number(bits), type);
  else return false;
  return true;
}

/** An IPv4 address may come written as one of IPv6. */
function isIn(list: BlockList, address: string): boolean {
  const plain = address.replace(/^::ffff:(?=\d+\.)/i, '');
  const family = isIP(plain);
  return family !== 0 && list.check(plain, family === 6 ? 'ipv6' : 'ipv4');
}
