/** Numbers from 0 to below 1 that look random and are the same every time: the minimal standard generator (Park & Miller 1988). */
export function random(seed: number): () => number {
  let state = seed;
  return () => (state = (state * 48271) % 2147483647) / 2147483647;
}

/** Numbers of a normal distribution around 0, the same every time (Box & Muller 1958). */
export function gaussian(seed: number, deviation: number): () => number {
  const next = random(seed);
  return () => deviation * Math.sqrt(-2 * Math.log(next() + 1e-12)) * Math.cos(2 * Math.PI * next());
}
