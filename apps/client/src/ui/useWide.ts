import { useWindowDimensions } from 'react-native';
import { useTextScale } from './textSize';
import { WIDE } from './tokens';

/** Is there room for two or three columns of text as high as it is drawn? */
export function useWide(): boolean {
  const scale = useTextScale();
  return useWindowDimensions().width >= WIDE * scale;
}
