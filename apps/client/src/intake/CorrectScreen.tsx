import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { emptyDraft, type TakeInDraft } from '../data/draftSlice';
import { useKept } from '../data/useKept';
import { orderHref } from '../orders/links';
import type { OrderPartProps } from '../orders/OrderShell';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Card';
import { Main } from '../ui/Main';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';
import { IntakeQuestions } from './IntakeQuestions';
import { bodyOf } from './takeInBody';
import { useIntakeForm } from './useIntakeForm';

const correctionOf = (draft: TakeInDraft, machineId: string) => {
  const { number: _number, machineId: _machine, ...body } = bodyOf(draft, machineId, '');
  return body;
};

/** What was given at the taking-in, to be put right while the order is open. */
export function CorrectScreen({ order, record }: OrderPartProps) {
  const router = useRouter();
  const { machine, state } = order;
  const [kept, keep, forget] = useKept<TakeInDraft>('intake', state.intake ?? emptyDraft);
  const form = useIntakeForm('intake-corrected', kept, keep, (draft) => correctionOf(draft, machine.id));
  const leave = (): void => {
    forget();
    router.replace(orderHref(order.id, order.phase));
  };
  if (state.closed || !state.intake)
    return (
      <View style={styles.body}>
        <Notice title="The order is closed" text="Withdraw the closing first; then the taking-in can be put right." />
      </View>
    );
  return (
    <View style={styles.grow}>
      <Main label="The taking-in" contentContainerStyle={styles.body}>
        <Text kind="title" heading={2}>
          Put the taking-in right
        </Text>
        <IntakeQuestions
          machine={machine}
          form={form}
          first="seen-print"
          laneFixed={state.findings.length + state.notDone.length > 0}
        />
      </Main>
      <View style={styles.foot}>
        <Button label="Leave it as it was" kind="quiet" onPress={leave} style={styles.grow} />
        <Button
          label="That is right"
          kind="main"
          style={styles.grow}
          onPress={() =>
            form.submit((body) => {
              record('intake-corrected', body);
              leave();
            })
          }
        />
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  grow: { flex: 1 },
  body: { padding: space.l, gap: space.m },
  foot: { flexDirection: 'row', gap: space.s, padding: space.m },
});
