/** A repeatable source of random numbers: xoshiro128** seeded by splitmix32 (Blackman & Vigna, public domain; constants from
 *  memory). Uniform in [0, 1). */
export function randomNumbers(seed: number): () => number {
  let s = seed | 0;
  const word = () => {
    s = (s + 0x9e3779b9) | 0;
    let z = s;
    z = Math.imul(z ^ (z >>> 16), 0x21f0aaad);
    z = Math.imul(z ^ (z >>> 15), 0x735a2d97);
    return z ^ (z >>> 15);
  };
  let [a, b, c, d] = [word(), word(), word(), word()];
  const rotate = (x: number, k: number) => (x << k) | (x >>> (32 - k));
  return () => {
    const result = Math.imul(rotate(Math.imul(b, 5), 7), 9);
    const t = b << 9;
    c ^= a;
    d ^= b;
    b ^= c;
    a ^= d;
    c ^= t;
    d = rotate(d, 11);
    return (result >>> 0) / 4_294_967_296;
  };
}

/** A Poisson draw by multiplying uniforms (Knuth); for means up to about 30. */
export function poissonDraw(random: () => number, mean: number): number {
  const least = Math.exp(-mean);
  let n = 0;
  for (let p = random(); p > least; p *= random()) n += 1;
  return n;
}

/** A standard normal draw (Box & Muller). */
export const normalDraw = (random: () => number): number =>
  Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
