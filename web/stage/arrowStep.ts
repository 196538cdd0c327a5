/** mm that an arrow key moves what has the focus, and with Shift. */
const [STEP, FAR] = [1, 10];

const WAYS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** How far a key moves a thing on the sign, mm; undefined when it is no arrow. */
export function arrowStep({ key, shiftKey }: KeyboardEvent): readonly [number, number] | undefined {
  const way = WAYS[key];
  const step = shiftKey ? FAR : STEP;
  return way && [way[0] * step, way[1] * step];
}
