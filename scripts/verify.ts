import { openPool, settingsFromEnvironment } from '@/data/pool';
import { checkInvariants } from '@/data/repositories/invariants';
import { readSnapshot } from '@/data/transaction';

/** Prints each invariant of the books with its count of violations; exits 1 when there is any. */
async function verify(): Promise<void> {
  const pool = openPool(settingsFromEnvironment(process.env), 1);
  const found = await readSnapshot(pool, checkInvariants);
  for (const { name, violations } of found) console.log(`${String(violations).padStart(6)}  ${name}`);
  const bad = found.filter((f) => f.violations > 0).length;
  console.log(bad === 0 ? 'The books are sound.' : `${bad} of ${found.length} invariants are violated.`);
  await pool.end();
  process.exitCode = bad === 0 ? 0 : 1;
}

verify().catch((e) => {
  console.error(e);
  process.exit(1);
});
