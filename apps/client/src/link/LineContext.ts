import { createContext, useContext } from 'react';

/** Opens what the machine can do over its line, with the temperature that is wanted, °C; undefined where it has none. */
type OpenLine = (wantedC?: number) => void;
export const LineContext = createContext<OpenLine | undefined>(undefined);
export const useOpenLine = (): OpenLine | undefined => useContext(LineContext);
