/** A name that leads here by somebody else's doing, such as a page that renames itself to this machine, gets nothing. */
import type { RequestHandler } from 'express';
import { Trouble } from '../problem';

export const LOOPBACK = ['127.0.0.1', 'localhost', '[::1]'] as const;

/** @param hosts names and addresses, without ports, that the app goes by */
export function knownHostsOnly(hosts: readonly string[]): RequestHandler {
  const known = new Set(hosts.map((host) => host.toLowerCase()));
  return (request, _response, next) => {
    const name = nameIn(request.get('host') ?? '');
    if (name !== undefined && known.has(name)) return next();
    next(
      new Trouble(
        421,
        'unknown-host',
        'Jam Pan does not go by this name. Open it by the address that it printed.',
      ),
    );
  };
}

const nameIn = (host: string): string | undefined =>
  /^(\[[0-9a-f:.]+\]|[^:/@\s]+)(:\d+)?$/.exec(host.toLowerCase())?.[1];
