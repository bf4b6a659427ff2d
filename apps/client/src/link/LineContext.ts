import { createContext, useContext } from 'react';

/** Opens what the machine can do over its line; undefined where it has none. */
export const LineContext = createContext<(() => void) | undefined>(undefined);
export const useOpenLine = (): (() => void) | undefined => useContext(LineContext);
