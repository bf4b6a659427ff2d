import { deliveredCatalogue, type CheckResult, type FailureMode } from '@zealous/core';
import { fireEvent, render, screen, within } from '@testing-library/react-native';
import { useState } from 'react';
import { fieldsOf, freshRecord } from './fields';
import { RecordForm } from './RecordForm';

type Loose = Readonly<Record<string, unknown>>;

/** The form with its state kept, and every record that it gave. */
function form(kind: 'modes' | 'checks' | 'remedies', first: Loose): () => Loose {
  let now = first;
  function Kept() {
    const [record, setRecord] = useState(first);
    return (
      <RecordForm
        catalogue={deliveredCatalogue}
        fields={fieldsOf(kind, deliveredCatalogue)}
        record={record}
        onChange={(next) => {
          now = next;
          setRecord(next);
        }}
      />
    );
  }
  render(<Kept />);
  return () => now;
}
const stub = deliveredCatalogue.modes.find((mode) => mode.id === 'stub') as unknown as Loose & FailureMode;

test('a weight is taken when it fits, and said not to be when it does not', () => {
  const record = form('modes', stub);
  fireEvent.changeText(screen.getByLabelText(/^Weight/), '7,5');
  expect(record()['weight']).toBe(7.5);
  fireEvent.changeText(screen.getByLabelText(/^Weight/), '70');
  expect(screen.getByText('Not taken: out of range.')).toBeTruthy();
  expect(record()['weight']).toBe(7.5);
});

test('where it sits: a kind is added with a usual share, and taken away', () => {
  const record = form('modes', stub);
  const where = screen.getByLabelText('Where it sits, and its share there');
  fireEvent.press(within(where).getByRole('checkbox', { name: 'Cutter' }));
  expect(record()['where']).toMatchObject({ cutter: 1, hub: 2 });
  fireEvent.press(within(where).getByRole('checkbox', { name: 'Cutter' }));
  expect(record()['where']).toEqual(stub.where);
});

test('what it shows: an effect is added by dimension and value, its chance changed, and removed', () => {
  const record = form('modes', { ...stub, shows: {} });
  fireEvent.press(screen.getByRole('button', { name: 'Add what it shows' }));
  fireEvent.press(screen.getByRole('radio', { name: 'strand in free air' }));
  fireEvent.press(screen.getByRole('radio', { name: 'pulses' }));
  expect(record()['shows']).toEqual({ strand: { pulses: 0.5 } });
  fireEvent.changeText(screen.getByLabelText('Chance'), '0.8');
  expect(record()['shows']).toEqual({ strand: { pulses: 0.8 } });
  fireEvent.press(screen.getByRole('button', { name: 'Remove' }));
  expect(record()['shows']).toEqual({});
});

test('a result is added before the normal one, and says when it is given', () => {
  const record = form('checks', freshRecord('checks', 'new'));
  fireEvent.press(screen.getByRole('button', { name: 'Add a result' }));
  const ids = () => (record()['results'] as readonly CheckResult[]).map((result) => result.id);
  expect(ids()).toEqual(['found', 'r2', 'sound']);
  fireEvent.press(screen.getAllByRole('button', { name: 'Add when it is given' })[1] as never);
  fireEvent.press(screen.getByRole('radio', { name: 'grip' }));
  fireEvent.press(screen.getByRole('radio', { name: 'knocks' }));
  expect((record()['results'] as readonly CheckResult[])[1]?.when).toEqual({ grip: ['knocks'] });
  fireEvent.press(screen.getAllByRole('button', { name: 'Remove this result' })[1] as never);
  expect(ids()).toEqual(['found', 'sound']);
});

test('an optional field that is emptied is taken out of the record', () => {
  const remedy = deliveredCatalogue.remedies.find((item) => item.price !== undefined) as unknown as Loose;
  const record = form('remedies', remedy);
  fireEvent.changeText(screen.getByLabelText(/^Price of the part/), '');
  expect('price' in record()).toBe(false);
});
