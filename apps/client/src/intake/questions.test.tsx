import { deliveredCatalogue, machineOfFamily } from '@zealous/core';
import { fireEvent, render, screen } from '../testing/render';
import { Stations } from './Stations';
import { bodyOf } from './takeInBody';
import { Unticked } from './Unticked';
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
