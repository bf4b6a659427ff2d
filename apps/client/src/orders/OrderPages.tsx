import { useLocalSearchParams } from 'expo-router';
import type { ComponentProps, ComponentType } from 'react';
import { CorrectScreen } from '../intake/CorrectScreen';
import { PlanScreen } from '../plan/PlanScreen';
import { ProveScreen } from '../prove/ProveScreen';
import { RecordScreen } from '../record/RecordScreen';
import { TraceScreen } from '../trace/TraceScreen';
import { OrderShell } from './OrderShell';

type ShellProps = ComponentProps<typeof OrderShell>;
type Given = Parameters<ShellProps['children']>[0];

/** A screen of the order whose id stands in the address. */
const orderPage = (Screen: ComponentType<Given>, phase?: ShellProps['phase']): ComponentType =>
  function OrderPage() {
    const { id } = useLocalSearchParams<{ id: string }>();
    return (
      <OrderShell key={id} id={id} {...(phase ? { phase } : {})}>
        {(props) => <Screen {...props} />}
      </OrderShell>
    );
  };

export const TracePage = orderPage(TraceScreen, 'trace');
export const PlanPage = orderPage(PlanScreen, 'plan');
export const ProvePage = orderPage(ProveScreen, 'prove');
export const RecordPage = orderPage(RecordScreen, 'record');
export const IntakePage = orderPage(CorrectScreen);
