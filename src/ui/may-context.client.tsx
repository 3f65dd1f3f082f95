'use client';

import { createContext, type ReactNode, useContext } from 'react';
import type { Right } from '@/core/people';

const Context = createContext<readonly Right[]>([]);

/** What the person at the screen may do, for everything below. */
export function MayProvider({ rights, children }: { rights: readonly Right[]; children: ReactNode }) {
  return <Context.Provider value={rights}>{children}</Context.Provider>;
}

export const useRights = (): readonly Right[] => useContext(Context);

/** Whether something is offered; the service decides again when it is tried. */
export const useMay = (right: Right): boolean => useRights().includes(right);
