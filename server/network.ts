/** Where the app listens and what it goes by: this machine only, unless the shop says otherwise. */
import { z } from 'zod';
import { Trouble } from './problem';

export interface Network {
  /** The address that it listens at. */
  readonly listen: string;
  /** Names and addresses that it goes by on the shop's network. */
  readonly hosts: readonly string[];
  /** Addresses of proxies in front of it. */
  readonly proxies: readonly string[];
}

const list = z
  .string()
  .default('')
  .transform((text) =>
    text
      .split(',')
      .map((one) => one.trim())
      .filter((one) => one !== ''),
  );
const schema = z.object({ LISTEN: z.string().trim().optional(), HOSTS: list, TRUST_PROXY: list });
const LOOPBACK = '127.0.0.1';
/** A name or an address, IPv6 in brackets, without a port. */
const NAME = /^(\[[0-9a-f:.]+\]|[a-z0-9.-]+)$/i;

/**
 * Of the settings HOSTS, LISTEN and TRUST_PROXY, see docs/network.md.
 * @throws Trouble when it would listen on a network and go by no name there
 */
export function networkFrom(env: Readonly<Record<string, string | undefined>>): Network {
  const { LISTEN, HOSTS, TRUST_PROXY } = schema.parse(env);
  const listen = LISTEN || (HOSTS.length > 0 ? '0.0.0.0' : LOOPBACK);
  const isOpen = listen !== LOOPBACK && listen !== '::1' && listen !== 'localhost';
  if (isOpen && HOSTS.length === 0)
    throw new Trouble(
      500,
      'no-hosts',
      `LISTEN=${listen} is on a network: say in HOSTS by which names or addresses Jam Pan is opened there, such as HOSTS=signs.lan,192.168.1.20.`,
    );
  const bad = HOSTS.find((host) => !NAME.test(host));
  if (bad !== undefined)
    throw new Trouble(
      500,
      'no-host',
      `HOSTS has ${bad}, which is no name or address: neither http:// nor a port goes with it.`,
    );
  return { listen, hosts: HOSTS, proxies: TRUST_PROXY };
}
