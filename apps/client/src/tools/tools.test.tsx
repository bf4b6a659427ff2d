import { deliveredCatalogue, halfLife, livesOf, offersOf } from '@zealous/core';
import { fireEvent, screen } from '../testing/render';
import type { ReactNode } from 'react';
import { atTen, noHistory, renderInShop } from '../testing/bench';
import { LivesScreen } from './LivesScreen';
import { ToolsScreen } from './ToolsScreen';

const mockPush = jest.fn();
jest.mock('expo-router', () => ({
  Link: ({ children }: { readonly children: ReactNode }) => children,
  useRouter: () => ({ push: (to: string) => mockPush(to), dismissTo: jest.fn() }),
  usePathname: () => '/tools',
}));

atTen();

test('each tool leads to its own page', async () => {
  await renderInShop(<ToolsScreen />);
  fireEvent.press(screen.getByRole('button', { name: 'How long do parts last here?' }));
  expect(mockPush).toHaveBeenCalledWith('/tools/lives');
});

test('without a record the starting figures stand, and no curve is drawn', async () => {
  await renderInShop(<LivesScreen />);
  expect(screen.getByText('Brass nozzle: half of them last 900 h (starting figure)')).toBeTruthy();
  expect(screen.queryByLabelText(/^Chart/)).toBeNull();
});

test('lives on record move the figure of their own offer, and are drawn from two different ones on', async () => {
  const lives = [300, 420, 510].map((hours) => ({ part: 'nozzle', offer: 'brass', hours, ended: true }));
  const parts = [
    { part: 'nozzle', maker: 'Skerry Parts', batch: 'S1', machine: 'Limpet', at: '2026-10-01', again: true },
    { part: 'nozzle', maker: 'Skerry Parts', batch: 'S2', machine: 'Limpet', at: '2026-11-01', again: false },
  ];
  await renderInShop(<LivesScreen />, { ...noHistory, lives, parts });
  const remedy = deliveredCatalogue.remedies.find(({ id }) => id === 'renew-nozzle');
  const brass = remedy && offersOf(remedy).find(({ id }) => id === 'brass');
  if (!remedy || !brass) throw new Error('test data');
  const half = Math.round(halfLife(900, livesOf(remedy, brass, lives)) / 10) * 10;
  expect(half).toBeLessThan(700);
  expect(
    screen.getByText(`Brass nozzle: half of them last ${half} h, from 3 on record and 900 h to start with`),
  ).toBeTruthy();
  expect(screen.getByText('Hardened nozzle: half of them last 2500 h (starting figure)')).toBeTruthy();
  expect(
    screen.getByLabelText(/^Chart: share still running against hours\. Weibull shape \d\.\d, 63 % ended by \d+ h$/),
  ).toBeTruthy();
  expect(screen.getByText('Fitted here: Skerry Parts 2, renewed again 1.')).toBeTruthy();
});
