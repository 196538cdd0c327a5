import type { Outdated } from '../../contracts/cuts';

const SECTIONS: Readonly<Record<string, string>> = {
  artwork: 'artwork',
  films: 'films',
  panels: 'seams',
  layout: 'layout',
  print: 'printed sheets',
  cut: 'cut settings',
  cutter: 'cutter',
};

/** What was changed since cuts were queued, and how many of them it concerns. */
export function outdatedHead({ order, changed, others, cuts, more }: Outdated): string {
  const what = [
    ...changed.map((section) => SECTIONS[section] ?? section),
    ...others.map((number) => `#${number} on the same film`),
  ];
  const differ = cuts.length === 1 ? '1 cut differs' : `${cuts.length} cuts differ`;
  const isMore = cuts.length === 0 && more.length > 0;
  const concerns = isMore ? 'more is to be cut' : differ;
  return what.length > 0
    ? `#${order.number} was changed since it was queued: ${what.join(', ')}; ${concerns}.`
    : `Settings of the shop were changed since #${order.number} was queued: ${concerns}.`;
}

/** What is otherwise, one by one. */
export const outdatedSays = ({ cuts, more, begun }: Outdated): string[] => [
  ...new Set(cuts.flatMap(({ says }) => says)),
  ...[...new Set(more)].map((film) => `${film} would be cut too.`),
  ...[...new Set(begun.map(({ film }) => film))].map(
    (film) => `${film} is begun or cut already and stays as it is: see whether the rest still fits it.`,
  ),
];
