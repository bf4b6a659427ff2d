import type { ViewedEntry } from '@zealous/core/practice';
import { View } from 'react-native';
import { Card } from '../ui/Card';
import { Text } from '../ui/Text';

/** One thing that was done in a round, and what came of it; an accident that would have happened, kindly. */
export function EntryLine({ entry, live = false }: { readonly entry: ViewedEntry; readonly live?: boolean }) {
  const { name, found, abnormal, helped, kind, minutes, accident, refused } = entry;
  const edge = accident ? 'fault' : refused !== undefined ? 'warm' : abnormal ? 'doubt' : helped ? 'clear' : 'line';
  return (
    <Card edge={edge}>
      <Text
        kind="small"
        tone="soft"
      >{`${name}${minutes > 0 ? `, ${minutes.toFixed(minutes < 10 ? 1 : 0)} min` : ''}`}</Text>
      <View testID={live ? 'practice-last' : undefined}>
        {accident ? (
          <>
            <Text bold tone="fault" live={live}>{`Stopped in time. ${accident.what}`}</Text>
            <Text>{accident.instead}</Text>
          </>
        ) : null}
        {refused === undefined ? null : (
          <Text bold live={live}>
            {refused}
          </Text>
        )}
        {found === undefined ? null : (
          <Text bold live={live}>
            {found}
          </Text>
        )}
        {kind === 'repair' && !accident ? (
          <Text bold live={live}>
            {helped ? 'It helped: something that was wrong is gone.' : 'The proof shows no change.'}
          </Text>
        ) : null}
      </View>
    </Card>
  );
}
