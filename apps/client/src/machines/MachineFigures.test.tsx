import { machineOfFamily, type Machine } from '@zealous/core';
import { fireEvent, render, screen } from '../testing/render';
import { FIGURES, MachineFigures } from './MachineFigures';

interface Shape {
  readonly minimum?: number;
  readonly maximum?: number;
  readonly properties?: Readonly<Record<string, Shape>>;
}
const schema = jest.requireActual('../../../../packages/core/src/formats/schemas/machine.schema.json') as Shape;
const machine = machineOfFamily('hub-head', 'dunlin', 'Dunlin');

test.each(FIGURES)('$label: bounds as in the published format', ({ path, least, most }) => {
  const shape = path.reduce<Shape | undefined>((at, name) => at?.properties?.[name], schema);
  expect([least, most]).toEqual([shape?.minimum, shape?.maximum]);
});

test('a figure that fits changes the machine at its place; one out of range changes nothing and says so', () => {
  const changed: Machine[] = [];
  render(<MachineFigures machine={machine} onChange={(next) => changed.push(next)} />);
  fireEvent.changeText(screen.getByLabelText('Hottest that it may get, °C'), '285');
  expect(changed).toEqual([{ ...machine, heat: { ...machine.heat, limitC: 285 } }]);
  fireEvent.changeText(screen.getByLabelText('Filament diameter, mm'), '-5');
  expect(changed).toHaveLength(1);
  expect(screen.getByText('Not taken: out of range.')).toBeTruthy();
});
