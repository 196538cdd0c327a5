import { formatBoth } from '../units/length';
import type { PanelChoices } from './choices';
import type { PanelPart } from './panel';

/** Numbers of a film's panels in the order in which they go on: what lies under another goes first. */
export function applicationOrder(
  panels: readonly Pick<PanelPart, 'cell'>[],
  onTop: PanelChoices['onTop'],
): number[] {
  const numbers = panels.map(({ cell }) => cell.number).sort((a, b) => a - b);
  return onTop === 'next' ? numbers : numbers.reverse();
}

/** What the bench is told of a film that comes in panels; nothing when it is whole. */
export function panelHints(
  panels: readonly PanelPart[],
  film: string,
  { onTop, overlap }: Pick<PanelChoices, 'onTop' | 'overlap'>,
): string[] {
  const own = panels.filter((panel) => panel.film.id === film);
  if (own.length === 0) return [];
  const order = applicationOrder(own, onTop);
  const lies = overlap > 0 ? `, each ${formatBoth(overlap)} beneath the next` : ', edge to edge';
  return [
    own.length === 1
      ? `on panel ${order[0]} alone`
      : `in ${own.length} panels, applied ${order.join(', ')}${lies}`,
  ];
}
