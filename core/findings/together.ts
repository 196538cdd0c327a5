import type { Finding } from './finding';

/** What is said once: a finding, and the films beside its own that it holds for too. */
export interface Said {
  readonly finding: Finding;
  readonly alsoFilms: readonly string[];
}

/** Findings of the same kind about several films, said once with their names; all others as they are, in their order. */
export function saidOnce(findings: readonly Finding[]): Said[] {
  const said: { finding: Finding; alsoFilms: string[] }[] = [];
  const known = new Map<string, { readonly own: string; readonly alsoFilms: string[] }>();
  for (const finding of findings) {
    const { code, film, severity, ignored } = finding;
    const kind = `${severity} ${code} ${ignored ?? ''}`;
    const also = film === undefined ? undefined : known.get(kind);
    if (also && film !== undefined) {
      // a film with several panels of which the same holds is named once
      if (film !== also.own && !also.alsoFilms.includes(film)) also.alsoFilms.push(film);
    } else {
      const alsoFilms: string[] = [];
      said.push({ finding, alsoFilms });
      if (film !== undefined) known.set(kind, { own: film, alsoFilms });
    }
  }
  return said;
}
