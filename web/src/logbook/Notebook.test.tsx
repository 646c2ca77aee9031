// @vitest-environment jsdom
import { cleanup, fireEvent, screen } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import { drawn, serving } from '../testing/serve';
import { Notebook } from './Notebook';

const line = (n: number, title: string, over: object = {}) => ({
  line: n,
  title,
  ended: '2023-05-02',
  state: 'finished',
  size: 'US 7',
  used: '208 mm',
  minutes: 40,
  note: '',
  known: false,
  faults: [],
  ...over,
});
const told = {
  lines: [
    line(3, 'Bee', { faults: [{ column: 'date', reason: '“3/5/2023” isn’t a day', accepted: '2024-03-05' }] }),
    line(2, 'Plain'),
    line(4, 'Nest', { known: true }),
  ],
  fresh: 1,
  known: 1,
  wrong: 1,
  unread: ['weather'],
  columns: [],
};

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

function choose() {
  const table = new File(['title\nPlain\n'], 'book.csv', { type: 'text/csv' });
  fireEvent.change(screen.getByTestId('notebook'), { target: { files: [table] } });
}

test('a table is shown line by line, what is wrong with its reason, and taken in when that is said', async () => {
  const asked = serving({ 'POST /api/notebook/preview': told, 'POST /api/notebook': { rings: 1 } });
  drawn(<Notebook onClose={vi.fn()} />);
  choose();
  expect(await screen.findByText(/1 ring can come in, 1 are in the logbook already, 1 can’t be read/)).toBeTruthy();
  expect(screen.getByText(/“3\/5\/2023” isn’t a day\. Use 2024-03-05/)).toBeTruthy();
  expect(screen.getByText('Nothing is read from: weather.')).toBeTruthy();
  expect(asked.map(({ path }) => path)).toEqual(['/api/notebook/preview']);
  fireEvent.click(screen.getByRole('button', { name: 'Take 1 ring into the logbook' }));
  expect(await screen.findByText('One ring has come in.')).toBeTruthy();
  expect(asked.map(({ path }) => path)).toEqual(['/api/notebook/preview', '/api/notebook']);
});

test('what is no table is said where it was chosen', async () => {
  serving({});
  drawn(<Notebook onClose={vi.fn()} />);
  choose();
  expect(await screen.findByText(/there is none/i)).toBeTruthy();
  expect(screen.queryByRole('list')).toBeNull();
});
