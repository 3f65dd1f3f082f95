'use client';

import { useEffect, useRef, useState } from 'react';
import { takeScans } from './scans';

/** Entries of a list that are not saved yet: only of the rows that have one. What a scan types into one is taken out again. */
export function useEdits<K, V>() {
  const [edits, setEdits] = useState<ReadonlyMap<K, V>>(new Map());
  const now = useRef(edits);
  now.current = edits;
  const before = useRef(edits);
  const touched = useRef<{ key: K } | null>(null);

  const put = (key: K, value: V) => {
    touched.current = { key };
    setEdits((all) => new Map(all).set(key, value));
  };
  const drop = (key: K, only: (value: V) => boolean = () => true) =>
    setEdits((all) => (all.has(key) && only(all.get(key) as V) ? new Map([...all].filter(([k]) => k !== key)) : all));
  const clear = () => setEdits(new Map());

  useEffect(
    () =>
      takeScans({
        begins: () => {
          before.current = now.current;
          touched.current = null;
        },
        putBack: () => {
          if (!touched.current) return;
          const { key } = touched.current;
          const had = before.current.get(key);
          setEdits((all) => {
            const next = new Map(all);
            if (had === undefined) next.delete(key);
            else next.set(key, had);
            return next;
          });
        },
      }),
    [],
  );
  return { get: (key: K) => edits.get(key), put, drop, clear };
}
