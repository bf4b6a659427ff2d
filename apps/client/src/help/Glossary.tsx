import { StyleSheet, View } from 'react-native';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';
import { SHAPES, WORDS } from './words';

/** What the shapes of the strand mean, and the trade's words. */
export function Glossary() {
  return (
    <View style={styles.column}>
      <List title="What the strand shows" list={SHAPES} />
      <List title="Words of the trade" list={WORDS} />
    </View>
  );
}

function List({ title, list }: { readonly title: string; readonly list: readonly (readonly [string, string])[] }) {
  return (
    <View style={styles.column}>
      <Text kind="large" bold heading={2}>
        {title}
      </Text>
      {list.map(([word, meaning]) => (
        <Text key={word}>
          <Text bold>{`${word}: `}</Text>
          {meaning}
        </Text>
      ))}
    </View>
  );
}

const styles = StyleSheet.create({ column: { gap: space.s } });
