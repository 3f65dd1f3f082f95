/** A loop in what leads to what, spelled out from a name back to itself; null when there is none. */
export function findLoop(leads: ReadonlyMap<string, readonly string[]>): string[] | null {
  const done = new Set<string>();
  const walk = (at: string, path: readonly string[]): string[] | null => {
    if (path.includes(at)) return [...path.slice(path.indexOf(at)), at];
    if (done.has(at)) return null;
    for (const next of leads.get(at) ?? []) {
      const loop = walk(next, [...path, at]);
      if (loop) return loop;
    }
    done.add(at);
    return null;
  };
  for (const start of leads.keys()) {
    const loop = walk(start, []);
    if (loop) return loop;
  }
  return null;
}
