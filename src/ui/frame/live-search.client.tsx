'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';

/** Typing quickly asks only for where one stops. */
const PAUSE_MS = 150;

/** A search that shows what fits as one types: the words stand in the address. */
export function LiveSearch(props: {
  value: string;
  placeholder: string;
  label: string;
  width?: string;
  hrefOf: (words: string) => string;
}) {
  const router = useRouter();
  const [text, setText] = useState(props.value);
  /** The words that were asked for last: an address that comes back with them is no news. */
  const asked = useRef(props.value);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => {
    if (props.value === asked.current) return;
    asked.current = props.value;
    setText(props.value);
  }, [props.value]);
  useEffect(() => () => clearTimeout(timer.current), []);
  const ask = (words: string) => {
    clearTimeout(timer.current);
    if (words === asked.current) return;
    asked.current = words;
    router.replace(props.hrefOf(words), { scroll: false });
  };
  return (
    <search>
      <form
        className="flex"
        onSubmit={(e) => {
          e.preventDefault();
          ask(text.trim());
        }}
      >
        <input
          type="search"
          name="q"
          className={`entry ${props.width ?? 'w-48'}`}
          value={text}
          placeholder={props.placeholder}
          aria-label={props.label}
          autoComplete="off"
          onChange={(e) => {
            const words = e.target.value;
            setText(words);
            clearTimeout(timer.current);
            timer.current = setTimeout(() => ask(words.trim()), PAUSE_MS);
          }}
        />
      </form>
    </search>
  );
}
