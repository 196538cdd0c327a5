const FILMS = ['#4a1d44', '#2c6e7c', '#e2a11d', '#b0202f', '#1d3f86', '#17161a'];

/** Such a drawing with a thin bar and a small loose piece below each disc: findings by the thousand. */
export function busyDrawing(shapes: number, points: number): string {
  const columns = Math.ceil(Math.sqrt(shapes * 1.25));
  const spoilt = (n: number): string => {
    const [x, y] = [22 + (n % columns) * 38, 22 + Math.floor(n / columns) * 38];
    const fill = FILMS[(n + 1) % FILMS.length];
    return `<path fill="${fill}" d="M${x - 4} ${y}h8v0.7h-8ZM${x} ${y + 5}h1v1h-1Z"/>`;
  };
  return largeDrawing(shapes, points).replace(
    '</svg>',
    `${Array.from({ length: shapes }, (_, n) => spoilt(n)).join('')}</svg>`,
  );
}

/** A drawing of overlapping wavy discs in six colours: `shapes` of them with `points` each. */
export function largeDrawing(shapes: number, points: number): string {
  const columns = Math.ceil(Math.sqrt(shapes * 1.25));
  const disc = (n: number): string => {
    const [x, y] = [22 + (n % columns) * 38, 22 + Math.floor(n / columns) * 38];
    const at = Array.from({ length: points }, (_, i) => {
      const a = (2 * Math.PI * i) / points;
      const r = 22 * (1 + 0.08 * Math.sin(9 * a));
      return `${(x + r * Math.cos(a)).toFixed(3)} ${(y + r * Math.sin(a)).toFixed(3)}`;
    });
    return `<path fill="${FILMS[n % FILMS.length]}" d="M${at.join('L')}Z"/>`;
  };
  const [w, h] = [columns * 38 + 10, Math.ceil(shapes / columns) * 38 + 10];
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${w}" height="${h}">${Array.from({ length: shapes }, (_, n) => disc(n)).join('')}</svg>`;
}
