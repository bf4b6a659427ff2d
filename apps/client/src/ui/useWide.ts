import { useWindowDimensions } from 'react-native';
import { WIDE } from './tokens';

/** Is there room for two or three columns? */
export const useWide = (): boolean => useWindowDimensions().width >= WIDE;
