import { createHash } from 'node:crypto';
import { readdirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './say.mjs';

function* filesIn(path) {
  if (!statSync(path).isDirectory()) {
    yield path;
    return;
  }
  for (const name of readdirSync(path).sort()) yield* filesIn(join(path, name));
}

/** A digest of files and folders of the checkout, tests left out. */
export function digestOf(paths) {
  const hash = createHash('sha256');
  for (const path of paths) {
    for (const file of filesIn(join(root, path))) {
      if (!/\.test\.tsx?$/.test(file)) hash.update(file.slice(root.length)).update(readFileSync(file));
    }
  }
  return hash.digest('hex');
}
