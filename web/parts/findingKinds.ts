import type { Finding, Severity } from '../../core/findings/finding';

/** What findings of a kind are called together, by code. */
const NAMES: Readonly<Record<string, string>> = {
  gradient: 'Colour gradients',
  translucent: 'See-through paint',
  'open-line': 'Open outlines',
  double: 'Lines cut twice',
  'self-crossing': 'Outlines that cross themselves',
  'not-welded': 'Outlines that overlap',
  hairline: 'Hairlines',
  narrow: 'Stems too thin to weed',
  gap: 'Gaps too narrow',
  island: 'Loose shapes too small',
  'crowded-nodes': 'Crowded points',
};

/** Findings of one kind, each with its number. */
export interface FindingGroup {
  readonly code: string;
  readonly name: string;
  readonly severity: Severity;
  readonly members: readonly { readonly n: number; readonly finding: Finding }[];
}

/** Findings by kind, in the order in which each kind comes first; numbered through as they are listed. */
export function byKind(findings: readonly Finding[]): FindingGroup[] {
  const kinds = new Map<string, Finding[]>();
  for (const finding of findings) {
    const own = kinds.get(finding.code);
    if (own) own.push(finding);
    else kinds.set(finding.code, [finding]);
  }
  let n = 0;
  return [...kinds].map(([code, own]) => ({
    code,
    name: NAMES[code] ?? own[0].message,
    severity: own[0].severity,
    members: own.map((finding) => ({ n: ++n, finding })),
  }));
}
