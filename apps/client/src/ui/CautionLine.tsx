import type { Caution } from '@zealous/core';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { TouchableRipple } from 'react-native-paper';
import Svg, { Circle, Path, Text as SvgText } from 'react-native-svg';
import { Text } from './Text';
import { usePalette } from './theme';
import { radius, space, TARGET } from './tokens';

/** A caution before its step: the sign by shape and word, one line with the reason, the longer card on demand. */
export function CautionLine({ caution }: { readonly caution: Caution }) {
  const palette = usePalette();
  const [open, setOpen] = useState(false);
  const shapes = { triangle: 'M12 3 L22 20 H2 Z', diamond: 'M12 2 L22 12 L12 22 L2 12 Z' } as const;
  return (
    <TouchableRipple
      role="button"
      aria-expanded={open}
      aria-label={`Caution. ${caution.line}`}
      onPress={() => setOpen(!open)}
      style={[styles.line, { borderColor: palette.ink, backgroundColor: palette.card }]}
    >
      <View style={styles.face}>
        <Svg width={24} height={24} viewBox="0 0 24 24" aria-hidden>
          {caution.shape === 'circle' ? (
            <Circle cx={12} cy={12} r={10} fill="none" stroke={palette.ink} strokeWidth={2} />
          ) : (
            <Path d={shapes[caution.shape]} fill="none" stroke={palette.ink} strokeWidth={2} strokeLinejoin="round" />
          )}
          <SvgText x={12} y={17} fontSize={12} fontWeight="bold" textAnchor="middle" fill={palette.ink}>
            !
          </SvgText>
        </Svg>
        <View style={styles.words}>
          <Text kind="small" bold>
            {caution.line}
          </Text>
          {open ? <Text kind="small">{`${caution.more} Sign: ${caution.sign}.`}</Text> : null}
        </View>
      </View>
    </TouchableRipple>
  );
}

const styles = StyleSheet.create({
  line: {
    justifyContent: 'center',
    borderWidth: 1,
    borderRadius: radius.s,
    paddingHorizontal: space.s,
    paddingVertical: space.xs,
    minHeight: TARGET,
  },
  face: { flexDirection: 'row', alignItems: 'center', gap: space.s },
  words: { flex: 1 },
});
