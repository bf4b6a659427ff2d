import { recordFaults } from '@zealous/contracts/catalogue';
import { deliveredCatalogue, type CheckResult, type FailureMode } from '@zealous/core';
import { fireEvent, render, screen, waitFor, within } from '../testing/render';
import { fieldsOf } from './fields';
import { freshRecord } from './fresh';
import { Button } from '../ui/Button';
import { RecordForm } from '../ui/form/RecordForm';
import { useRecordForm } from '../ui/form/useRecordForm';
import { catalogueFields } from './EffectFields';

type Loose = Readonly<Record<string, unknown>>;

/** The form, judged as the catalogue's is, and the record as it last gave it. */
function form(kind: 'modes' | 'checks' | 'remedies', first: Loose): () => Loose {
  let now = first;
  function Shown() {
    const shown = useRecordForm({
      fields: fieldsOf(kind, deliveredCatalogue),
      record: first,
      judge: (record) => recordFaults(kind, record),
      onChange: (next) => (now = next),
    });
    return (
      <>
        <RecordForm
          form={shown}
          own={catalogueFields(deliveredCatalogue)}
          fields={fieldsOf(kind, deliveredCatalogue)}
        />
        <Button label="Store" onPress={() => void shown.handleSubmit(() => {})()} />
      </>
    );
  }
  render(<Shown />);
  return () => now;
}
const stub = deliveredCatalogue.modes.find((mode) => mode.id === 'stub') as unknown as Loose & FailureMode;

test('a weight is taken with comma or point; one that does not fit is refused by the contract, at its field, once that is left', async () => {
  const record = form('modes', stub);
  const weight = screen.getByLabelText(/^Weight/);
  fireEvent.changeText(weight, '7,5');
  expect(record()['weight']).toBe(7.5);
  fireEvent.changeText(weight, '70');
  fireEvent(weight, 'blur');
  expect(await screen.findByText(/^Must be a number from 0/)).toBeTruthy();
  // Nothing typed is lost by it.
  expect(weight.props.value).toBe('70');
  fireEvent.changeText(weight, '8');
  await waitFor(() => expect(screen.queryByText(/^Must be a number from 0/)).toBeNull());
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

test('a reading under a failure is added by name, changed, and taken away', () => {
  const record = form('modes', { ...stub, reads: { fed: { p: 0.75, mean: 5, sd: 8 } } });
  fireEvent.press(screen.getByRole('button', { name: 'Add a reading' }));
  // Without a name it is not part of the record yet.
  expect(Object.keys(record()['reads'] as Loose)).toEqual(['fed']);
  fireEvent.press(screen.getAllByRole('radio', { name: 'pull, N' })[1] as never);
  expect(record()['reads']).toMatchObject({ fed: { mean: 5 }, pull: { p: 0.7 } });
  fireEvent.press(screen.getByRole('button', { name: /^Remove 1 of: What a meas/ }));
  expect(Object.keys(record()['reads'] as Loose)).toEqual(['pull']);
});

test('a condition that raises a weight is asked for in full; one that is emptied is left out', () => {
  const record = form('modes', { ...stub, raised: undefined });
  fireEvent.press(screen.getByRole('button', { name: 'Add a condition' }));
  fireEvent.press(screen.getByRole('radio', { name: 'Material' }));
  fireEvent.changeText(screen.getByLabelText(/^The parameter is one of/), 'PTFE, nylon');
  expect(record()['raised']).toEqual([{ by: 2, why: 'Why', param: 'material', is: ['PTFE', 'nylon'] }]);
  fireEvent.changeText(screen.getByLabelText(/^The parameter is one of/), '');
  expect(record()['raised']).toEqual([{ by: 2, why: 'Why', param: 'material' }]);
  fireEvent.press(screen.getByRole('button', { name: /^Remove 1 of: What raises/ }));
  expect('raised' in record()).toBe(false);
});

test('a check gets a measured number with bands; letters are said not to be taken', () => {
  const record = form('checks', freshRecord('checks', 'new'));
  fireEvent.press(screen.getByRole('button', { name: 'Set: A measured number' }));
  fireEvent.changeText(screen.getByLabelText(/^Edges between bands/), '80; 95.5');
  expect(record()['quantity']).toMatchObject({ reads: 'fed', bands: [80, 95.5] });
  fireEvent.changeText(screen.getByLabelText(/^Edges between bands/), 'low');
  expect(screen.getByText(/numbers with commas between/)).toBeTruthy();
  expect(record()['quantity']).toMatchObject({ bands: [80, 95.5] });
  fireEvent.press(screen.getByRole('button', { name: 'Remove: A measured number' }));
  expect('quantity' in record()).toBe(false);
});

test('what does not fit is said at its field when it is stored, in a row too, by the contract that the server judges with', async () => {
  const cut = deliveredCatalogue.remedies.find(({ offers }) => offers?.length) as unknown as Loose;
  const [first, ...others] = cut['offers'] as readonly Loose[];
  form('remedies', { ...cut, cures: 3, offers: [{ ...first, lifeHours: 0 }, ...others] });
  fireEvent.press(screen.getByRole('button', { name: 'Store' }));
  expect(await screen.findByText('Must be a number from 0 to 1.')).toBeTruthy();
  expect(screen.getByText('Must be a number from 1 to 1000000.')).toBeTruthy();
});
