import { lineToPathData, regionToPathData } from '../geometry/pathText';
import type { Plan } from './planned';

/** The finished sign as SVG in mm, what is printed in its own colours, each film in its own, base first. */
export function faceSvg({ prepared, separation }: Plan): string {
  const { width, height } = prepared;
  const printed = separation.colours
    .filter(({ goesTo }) => goesTo === 'print')
    .map(({ colour, region }) => `<path fill="${colour}" d="${regionToPathData(region)}"/>`);
  const films = separation.films.map(({ film, region, lines }) => {
    const area = `<path fill="${film.colour}" d="${regionToPathData(region)}"/>`;
    const drawn = lines.map(lineToPathData).join('');
    const line = `<path fill="none" stroke="${film.colour}" stroke-width="${Math.max(width, height) / 300}" d="${drawn}"/>`;
    return lines.length > 0 ? area + line : area;
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" height="${height}mm" viewBox="0 0 ${width} ${height}">${[...printed, ...films].join('')}</svg>`;
}
