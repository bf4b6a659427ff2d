import { deliveredCatalogue, machineOfFamily } from '@zealous/core';
import { useState } from 'react';
import { View } from 'react-native';
import { emptyDraft, type TakeInDraft } from '../data/draftSlice';
import { atTen, renderInShop } from '../testing/bench';
import { fireEvent, render, screen, waitFor } from '../testing/render';
import { Button } from '../ui/Button';
import { Text } from '../ui/Text';
import { IntakeQuestions } from './IntakeQuestions';
import { Stations } from './Stations';
import { bodyOf } from './takeInBody';
import { Unticked } from './Unticked';
import { numbersOnly, useIntakeForm } from './useIntakeForm';
import { WhatCameOfIt } from './WhatCameOfIt';

const { symptoms, before } = deliveredCatalogue;
const machine = machineOfFamily('bowden-open', 'm', 'M');

describe('what is not ticked', () => {
  const draft = { symptoms: ['thin'], before: [] };

  test('nobody asked, all were looked for, or some were not: each is said differently', () => {
    const onChange = jest.fn();
    render(<Unticked symptoms={symptoms} draft={draft} onChange={onChange} />);
    fireEvent.press(screen.getByLabelText('Looked for and not seen'));
    expect(onChange).toHaveBeenLastCalledWith([]);
    fireEvent.press(screen.getByLabelText('Some were not looked at'));
    const rest = onChange.mock.lastCall?.[0] as string[];
    expect(rest).toHaveLength(symptoms.length - 1);
    expect(rest).not.toContain('thin');
    fireEvent.press(screen.getByLabelText('Nobody asked'));
    expect(onChange).toHaveBeenLastCalledWith(undefined);
  });

  test('one of those that nobody looked at is taken out again', () => {
    const onChange = jest.fn();
    render(<Unticked symptoms={symptoms} draft={{ ...draft, notLooked: ['leak', 'leans'] }} onChange={onChange} />);
    fireEvent.press(screen.getByLabelText('Strand comes out sideways'));
    expect(onChange).toHaveBeenCalledWith(['leak']);
  });

  test('what was ticked later is not sent as not looked at', () => {
    expect(bodyOf({ ...draft, notLooked: ['thin', 'leak'] }, 'm', '1').notLooked).toEqual(['leak']);
    expect(bodyOf(draft, 'm', '1')).not.toHaveProperty('notLooked');
  });
});

test('what came of a thing that was tried is asked of cures only, and goes with it', () => {
  const onChange = jest.fn();
  const draft = { before: ['fan-cleaned', 'settings-changed'], tried: [] };
  render(<WhatCameOfIt before={before} draft={draft} onChange={onChange} />);
  expect(screen.queryByText('Changed settings: what came of it?')).toBeNull();
  fireEvent.press(screen.getByLabelText('Same as before'));
  expect(onChange).toHaveBeenCalledWith([{ id: 'fan-cleaned', result: 'same' }]);
  const tried = [
    { id: 'fan-cleaned', result: 'same' as const },
    { id: 'gears-cleaned', result: 'better' as const },
  ];
  expect(bodyOf({ symptoms: [], before: ['fan-cleaned'], tried }, 'm', '1').tried).toEqual([tried[0]]);
});

test('the place that a message names, and places that were converted, are asked when they apply', () => {
  const onChange = jest.fn();
  render(<Stations machine={machine} draft={{}} onChange={onChange} />);
  expect(screen.queryByLabelText('Place that the message names')).toBeNull();
  fireEvent.press(screen.getByText('A message names a place'));
  fireEvent.press(screen.getAllByLabelText('Extruder')[0] as never);
  expect(onChange).toHaveBeenLastCalledWith({ noticedAt: 'extruder' });
  fireEvent.press(screen.getByText('Something was converted'));
  fireEvent.press(screen.getAllByLabelText('Nozzle').at(-1) as never);
  expect(onChange).toHaveBeenLastCalledWith({ converted: ['nozzle'] });
});

describe('the questions as one form', () => {
  atTen();
  const inPrint = deliveredCatalogue.onsets.find((onset) => onset.inPrint);
  const begun: TakeInDraft = { ...emptyDraft, machineId: 'm', ...(inPrint ? { onset: inPrint.id } : {}) };
  const kept: TakeInDraft[] = [];
  const taken = jest.fn();
  function Desk() {
    const form = useIntakeForm(
      'taken-in',
      begun,
      (draft) => void kept.push(draft),
      (draft) => bodyOf(draft, 'm', 'new'),
    );
    return (
      <View>
        <IntakeQuestions machine={machine} form={form} first="shows" />
        <Button label="Take in" onPress={() => void form.handleSubmit(() => taken(numbersOnly(form.getValues())))()} />
      </View>
    );
  }
  const minutes = () => screen.getByLabelText('After how many minutes of printing?');

  test.each([
    ['machine', true, true],
    ['machine', false, false],
    ['shows', true, false],
  ] as const)('the next question after “%s”, the machine still coming: %s, waits: %s', async (first, coming, waits) => {
    function Which() {
      const form = useIntakeForm(
        'taken-in',
        begun,
        () => undefined,
        (draft) => bodyOf(draft, 'm', 'new'),
      );
      return <IntakeQuestions machine={undefined} form={form} first={first} which={{ said: 'M', ask: null, coming }} />;
    }
    await renderInShop(<Which />);
    expect(screen.getByRole('button', { name: 'Next question', disabled: waits })).toBeTruthy();
  });

  test('each time it is refused for want of a machine or a lane, that question is opened', async () => {
    function Refused() {
      const [refusals, setRefusals] = useState(0);
      const form = useIntakeForm(
        'taken-in',
        begun,
        () => undefined,
        (draft) => bodyOf(draft, 'm', 'new'),
      );
      return (
        <View>
          <IntakeQuestions
            machine={machine}
            form={form}
            first="rest"
            which={{ said: undefined, ask: <Text>Choose one</Text>, refusals }}
          />
          <Button label="Take in" onPress={() => setRefusals(refusals + 1)} />
        </View>
      );
    }
    await renderInShop(<Refused />);
    for (let time = 0; time < 2; time++) {
      expect(screen.queryByText('Choose one')).toBeNull();
      fireEvent.press(screen.getByRole('button', { name: 'Take in' }));
      expect(screen.getByText('Choose one')).toBeTruthy();
      // Left open it would prove nothing the second time.
      fireEvent.press(screen.getByText('Next question'));
    }
  });

  test('a number that the server would refuse is refused at its field, in its question, and nothing else is lost', async () => {
    await renderInShop(<Desk />);
    fireEvent.changeText(minutes(), '999999');
    fireEvent.changeText(screen.getByLabelText('At what height, mm?'), '12,5');
    // Folded away, it is opened again.
    fireEvent.press(screen.getByText('Next question'));
    expect(screen.queryByLabelText('At what height, mm?')).toBeNull();
    fireEvent.press(screen.getByRole('button', { name: 'Take in' }));
    await waitFor(() => expect(screen.getByText(/100000|100 000/)).toBeTruthy());
    expect(taken).not.toHaveBeenCalled();
    fireEvent.changeText(minutes(), '240');
    fireEvent.press(screen.getByRole('button', { name: 'Take in' }));
    await waitFor(() => expect(taken).toHaveBeenCalled());
    expect(taken.mock.lastCall?.[0]).toMatchObject({ failedAfterMinutes: 240, failedAtMm: 12.5 });
    expect(kept.at(-1)).toMatchObject({ machineId: 'm', failedAfterMinutes: 240 });
  });

  test('what is still being typed is not reckoned with', () => {
    expect(numbersOnly({ ...begun, failedAtMm: '12,' as unknown as number, failedAfterMinutes: 3 })).toEqual({
      ...begun,
      failedAfterMinutes: 3,
    });
  });
});
