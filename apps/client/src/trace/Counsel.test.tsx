import type { Assessment, RankedCheck } from '@zealous/core';
import { Provider } from 'react-redux';
import { makeStore } from '../data/store';
import { fireEvent, render, screen } from '../testing/render';
import { BesideCheck, UnderStrand } from './Counsel';
import { OtherChecks } from './OtherChecks';
import { WhyBody } from './WhySheet';

const check = (key: string, expectedMinutes: number, rest: Partial<RankedCheck> = {}): RankedCheck => ({
  key,
  check: key,
  station: 'hub',
  name: `Check ${key}`,
  handsOnMinutes: 2,
  waitingMinutes: 0,
  heat: 'any',
  power: 'any',
  opens: [],
  openIds: [],
  hotC: 208,
  how: '',
  cautions: [],
  tools: [],
  priceParts: ['the check 2 min'],
  parts: [{ what: 'the check', minutes: 2 }],
  afterMinutes: expectedMinutes - 2,
  depth: 2,
  meanwhile: [],
  tells: [],
  expectedMinutes,
  savesMinutes: 5,
  bits: 1,
  done: false,
  because: [],
  outcomes: [
    {
      result: 'yes',
      label: 'Stub inside',
      probability: 0.25,
      minutesAfter: 12,
      stations: [0.9, 0.1],
      moves: [{ station: 'hub', name: 'Hub', from: 0.3, to: 0.9 }],
    },
    { result: 'no', label: 'Clear', probability: 0.75, minutesAfter: 30, stations: [0.1, 0.9], moves: [] },
  ],
  ...rest,
});
const assessment = (checks: readonly RankedCheck[], rest: Partial<Assessment> = {}): Assessment => ({
  stations: [
    { station: 'hub', name: 'Hub', suspicion: 0.3, prior: 0.2, anywhere: 0 },
    { station: 'tube', name: 'Tube', suspicion: 0.01, prior: 0.2, anywhere: 0, clearedBy: 'pushed through' },
  ],
  causes: [],
  elsewhere: 0.01,
  cleared: [],
  checks,
  advice: { kind: 'check', text: '', nearTie: false, repairMinutes: 40 },
  sets: [],
  unexplained: [],
  habits: [],
  ...rest,
});

describe('beside the check', () => {
  const best = check('a', 20);

  test('a better one found by a longer look is offered with what it saves, and can be taken', () => {
    const onTake = jest.fn();
    const own = check('b', 24);
    render(<BesideCheck assessment={assessment([best, own])} check={own} onTake={onTake} />);
    fireEvent.press(screen.getByRole('button', { name: 'A longer look prefers: Check a' }));
    expect(onTake).toHaveBeenCalledWith('a');
    expect(screen.getByText('saves about 4 min')).toBeTruthy();
  });

  test('beside the best itself nothing is offered', () => {
    render(<BesideCheck assessment={assessment([best, check('b', 24)])} check={best} onTake={jest.fn()} />);
    expect(screen.queryByText(/saves about/)).toBeNull();
  });

  test('what may be done meanwhile is offered with its minutes', () => {
    const hot = check('hot', 20, { meanwhile: [{ key: 'spool', name: 'Look at the spool', minutes: 1 }] });
    const onTake = jest.fn();
    render(<BesideCheck assessment={assessment([hot])} check={hot} onTake={onTake} />);
    fireEvent.press(screen.getByRole('button', { name: 'Meanwhile: Look at the spool' }));
    expect(onTake).toHaveBeenCalledWith('spool');
  });

  test('a habit that is kept to says what it costs more', () => {
    const own = check('b', 26);
    const habits = [{ id: 'nozzle-first', name: 'Nozzle first', key: 'b', check: 'Check b', moreMinutes: 6 }];
    render(
      <BesideCheck
        assessment={assessment([best, own], { habits })}
        check={own}
        habit="nozzle-first"
        onTake={jest.fn()}
      />,
    );
    expect(screen.getByText(/By habit, nozzle first: about 6 min more/)).toBeTruthy();
    expect(screen.getByRole('button', { name: 'The tracer’s choice: Check a' })).toBeTruthy();
  });
});

describe('under the strand', () => {
  test('two causes at once, something else and what speaks for it, and how much is cleared', () => {
    const onCleared = jest.fn();
    const view = assessment([], {
      elsewhere: 0.4,
      unexplained: ['Look at the joint: leak'],
      sets: [
        {
          stations: ['hub', 'tube'],
          modes: ['tip-particles', 'gears-worn'],
          text: 'Hub: stub; and Tube: worn',
          share: 0.2,
        },
      ],
    });
    render(<UnderStrand sight={view} onCleared={onCleared} />);
    expect(screen.getByText(/Something not on the list: 40/)).toBeTruthy();
    expect(screen.queryByText(/look beside/)).toBeNull();
    expect(screen.getByText(/unexplained: Look at the joint: leak/)).toBeTruthy();
    expect(screen.getByText(/Two at once, 20.%: Hub: stub; and Tube: worn/)).toBeTruthy();
    fireEvent.press(screen.getByRole('button', { name: '1 of 2 cleared: by what?' }));
    expect(onCleared).toHaveBeenCalled();
  });

  test('where the path was found sound, that one should look beside it', () => {
    render(
      <UnderStrand sight={assessment([], { elsewhere: 0.6, beside: 'look beside it too' })} onCleared={jest.fn()} />,
    );
    expect(screen.getByText('look beside it too')).toBeTruthy();
  });
});

describe('why', () => {
  test('every result with its chance and what it would move; a rival part by part with the sum', () => {
    const best = check('a', 20);
    const own = check('b', 24.5);
    render(<WhyBody assessment={assessment([best, own])} check={own} />);
    expect(screen.getByText(/^Clear: 75.% likely$/)).toBeTruthy();
    expect(screen.getByText(/^Hub goes from 30.% to 90.%\.$/)).toBeTruthy();
    expect(screen.getByText('It would move next to nothing.')).toBeTruthy();
    const table = screen.getByLabelText('Minutes part by part');
    expect(table).toBeTruthy();
    expect(screen.getByText('24.5')).toBeTruthy();
    expect(screen.getByText('20.0')).toBeTruthy();
  });

  test('the best has no rival to be compared with', () => {
    const best = check('a', 20);
    render(<WhyBody assessment={assessment([best])} check={best} />);
    expect(screen.queryByLabelText('Minutes part by part')).toBeNull();
  });
});

test('the list of other checks stays as it was opened when a longer look ranks them otherwise; what that has found comes below', () => {
  const store = makeStore();
  const other = (ranked: Assessment) => (
    <Provider store={store}>
      <OtherChecks assessment={ranked} onClose={jest.fn()} onPick={jest.fn()} />
    </Provider>
  );
  const names = () =>
    screen.getAllByText(/^Check [abc]$/).map((name) => String((name.props as { children: unknown }).children));
  const shown = render(other(assessment([check('a', 20), check('b', 25)])));
  shown.rerender(other(assessment([check('b', 18), check('c', 19), check('a', 20)])));
  expect(names()).toEqual(['Check a', 'Check b', 'Check c']);
});
