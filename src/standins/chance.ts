/** A number from 0 to 1 that is always the same for the same words (FNV-1a, then a mix). */
export function chanceOf(words: string): number {
  let h = 2_166_136_261;
  for (let i = 0; i < words.length; i += 1) h = Math.imul(h ^ words.charCodeAt(i), 16_777_619);
  h = Math.imul(h ^ (h >>> 16), 2_246_822_507);
  h = Math.imul(h ^ (h >>> 13), 3_266_489_909);
  return ((h ^ (h >>> 16)) >>> 0) / 4_294_967_296;
}

/** So many of something, where a mean is known: by Knuth's product of uniform chances. */
export function poisson(mean: number, key: string): number {
  if (mean <= 0) return 0;
  // Far out a sum of smaller ones keeps the product above zero.
  if (mean > 30) return poisson(mean / 2, `${key}/a`) + poisson(mean / 2, `${key}/b`);
  const limit = Math.exp(-mean);
  let product = 1;
  for (let n = 0; ; n += 1) {
    product *= chanceOf(`${key}/${n}/customer`);
    if (product <= limit) return n;
  }
}
