declare module 'jstat' {
  /** The parts of the library used here; it ships without types. */
  export const jStat: {
    readonly normal: {
      pdf(x: number, mean: number, sd: number): number;
      cdf(x: number, mean: number, sd: number): number;
      inv(p: number, mean: number, sd: number): number;
    };
    readonly gamma: {
      pdf(x: number, shape: number, scale: number): number;
      cdf(x: number, shape: number, scale: number): number;
      inv(p: number, shape: number, scale: number): number;
    };
  };
}
