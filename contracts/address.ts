import type { Ask, Route } from './endpoints';

interface Anything {
  readonly params?: Readonly<Record<string, unknown>>;
  readonly query?: Readonly<Record<string, unknown>>;
}

/** The address of a route, with what stands in it and behind it. */
export function addressOf<R extends Route>(route: R, ask: Omit<Ask<R>, 'body'>): string {
  const { params = {}, query = {} } = ask as Anything;
  const path = route
    .slice(route.indexOf(' ') + 1)
    .replace(/\{(\w+)\}/g, (_, name: string) => encodeURIComponent(String(params[name])));
  const said = Object.entries(query).filter(([, value]) => value !== undefined && value !== null);
  const tail = new URLSearchParams(said.map(([name, value]) => [name, String(value)])).toString();
  return tail ? `${path}?${tail}` : path;
}
