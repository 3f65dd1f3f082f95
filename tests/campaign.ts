/** How many times as much as before a landing is done: 1, more in npm run test:campaign. */
export const TIMES = Number(process.env.VORRAT_CAMPAIGN ?? '1');
