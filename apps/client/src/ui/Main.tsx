import type { Ref } from 'react';
import { ScrollView, StyleSheet, type ScrollViewProps } from 'react-native';
import { CONTENT } from './SkipLink';

export interface MainProps extends ScrollViewProps {
  /** The page's name, as it is read out. */
  readonly label: string;
  readonly ref?: Ref<ScrollView>;
}

/** What is the page's own: it scrolls, is found by its name, and the keyboard gets to it at once. */
export const Main = ({ label, ...rest }: MainProps) => (
  <ScrollView style={styles.grow} role="main" id={CONTENT} tabIndex={0} aria-label={label} {...rest} />
);

const styles = StyleSheet.create({ grow: { flex: 1 } });
