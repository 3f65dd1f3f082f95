'use client';

import { createContext, type ReactNode, useContext, useEffect, useMemo } from 'react';
import { Format } from './format';

const Context = createContext(new Format('en-GB'));

export function FormatProvider({ locale, children }: { locale: string; children: ReactNode }) {
  const format = useMemo(() => new Format(locale), [locale]);
  // Says that the page now answers to keys and clicks.
  useEffect(() => {
    document.documentElement.dataset.ready = 'true';
  }, []);
  return <Context.Provider value={format}>{children}</Context.Provider>;
}

export const useFormat = (): Format => useContext(Context);
