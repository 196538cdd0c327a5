import type { Element } from './svg/xml';

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
  const stops = gradient.children.filter((child) => child.name === 'stop');
  return meanColour(
    stops.map(({ attributes }) => ({
      at: Number(attributes.offset ?? 0),
      colour: attributes['stop-color'] ?? '#000000',
    })),
  );
}

/** The mean of colour stops from 0 to 1; black when there is none. */
export function meanColour(given: readonly { readonly at: number; readonly colour: string }[]): string {
  if (given.length === 0) return '#000000';
  const stops = given.map(({ at, colour }) => ({ at, rgb: channels(colour) }));
  const line = [{ ...stops[0], at: 0 }, ...stops, { ...stops[stops.length - 1], at: 1 }];
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

/** Red, green and blue, 0 … 255. */
export function channels(colour: string): number[] {
  const hex = parseColour(colour);
  return [1, 3, 5].map((i) => parseInt(hex.slice(i, i + 2), 16));
}
