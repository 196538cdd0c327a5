import type { Element } from './xml';

/** Lower-case `#rrggbb` of a resolved paint; black for what is not a plain colour. */
export function parseColour(text: string): string {
  const hex = /^#([0-9a-f]{6})/i.exec(text.trim());
  if (hex) return `#${hex[1].toLowerCase()}`;
  const short = /^#([0-9a-f])([0-9a-f])([0-9a-f])$/i.exec(text.trim());
  return short
    ? `#${short
        .slice(1)
        .map((c) => c + c)
        .join('')
        .toLowerCase()}`
    : '#000000';
}

/** A gradient's mean colour along its length, each stretch between two stops counted by its length. */
export function flatColour(gradient: Element): string {
  const stops = gradient.children
    .filter((child) => child.name === 'stop')
    .map(({ attributes }) => ({
      at: Number(attributes.offset ?? 0),
      rgb: channels(attributes['stop-color'] ?? '#000000'),
    }));
  if (stops.length === 0) return '#000000';
  const first = stops[0];
  const last = stops[stops.length - 1];
  const line = [{ ...first, at: 0 }, ...stops, { ...last, at: 1 }];
  const mean = [0, 1, 2].map((channel) => {
    let sum = 0;
    for (let i = 1; i < line.length; i++) {
      sum +=
        Math.max(0, line[i].at - line[i - 1].at) * ((line[i].rgb[channel] + line[i - 1].rgb[channel]) / 2);
    }
    return Math.round(sum);
  });
  return `#${mean.map((v) => v.toString(16).padStart(2, '0')).join('')}`;
}

function channels(colour: string): number[] {
  const hex = parseColour(colour);
  return [1, 3, 5].map((i) => parseInt(hex.slice(i, i + 2), 16));
}
