import { StyleSheet } from 'react-native';
import { space } from '../ui/tokens';

/** Answer and picture of a tool: one below the other on the phone, side by side when wide; its fields below, as many as fit. */
export const sideBySide = StyleSheet.create({
  column: { gap: space.m, maxWidth: 1080, width: '100%', alignSelf: 'center' },
  pair: { flexDirection: 'row', gap: space.l },
  side: { gap: space.s, flexGrow: 1, flexShrink: 1, flexBasis: 'auto', minWidth: 0 },
  half: { flexBasis: 0 },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s },
  field: { flexGrow: 1, flexBasis: 200 },
});
