import { lineToPathData, regionToPathData } from '../geometry/pathText';
import type { Plan } from './plan';

/** The finished sign as SVG in mm, each film in its own colour, base first. */
export function faceSvg({ prepared, separation }: Plan): string {
  const { width, height } = prepared;
  const films = separation.films.map(({ film, region, lines }) => {
    const area = `<path fill="${film.colour}" d="${regionToPathData(region)}"/>`;
    const drawn = lines.map(lineToPathData).join('');
    const line = `<path fill="none" stroke="${film.colour}" stroke-width="${Math.max(width, height) / 300}" d="${drawn}"/>`;
    return lines.length > 0 ? area + line : area;
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" height="${height}mm" viewBox="0 0 ${width} ${height}">${films.join('')}</svg>`;
}
