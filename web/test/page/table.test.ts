import { cleanup, configure, fireEvent, render, screen, waitFor, within } from '@testing-library/svelte';
import { afterEach, beforeAll, describe, expect, it, vi } from 'vitest';
import Table, { type Column } from '../../src/lib/ui/Table.svelte';

configure({ asyncUtilTimeout: 10_000 });
beforeAll(() => {
  // what a browser measures and jsdom does not: a window of ten rows
  for (const [name, px] of [
    ['clientHeight', 400],
    ['clientWidth', 300],
    ['offsetHeight', 400],
    ['scrollHeight', 400_000],
    ['offsetWidth', 300],
  ] as const)
    Object.defineProperty(HTMLElement.prototype, name, { configurable: true, get: () => px });
  globalThis.ResizeObserver = class {
    observe() {}
    unobserve() {}
    disconnect() {}
  };
  Element.prototype.scrollTo = function (this: Element, to?: ScrollToOptions | number) {
    this.scrollTop = typeof to === 'object' ? (to.top ?? 0) : 0;
    this.dispatchEvent(new Event('scroll'));
  } as Element['scrollTo'];
});
afterEach(cleanup);

interface Row {
  id: string;
  value: string;
}
const columns: Column<Row>[] = [
  { id: 'id', title: 'Part', of: (r) => r.id },
  { id: 'value', title: 'Value', of: (r) => r.value },
];
const shown = (rows: Row[], more: { selected?: string | null; onselect?: (row: Row) => void } = {}) =>
  render(Table<Row>, {
    what: 'parts',
    rows,
    columns,
    tracks: '',
    keyOf: (r) => r.id,
    selected: null,
    onselect: () => {},
    find: { label: 'Find a part', example: 'C7', also: (r) => (r.id === 'C7' ? 'hidden word' : '') },
    none: 'No part placed yet.',
    ...more,
  });
const names = () =>
  within(screen.getByRole('rowgroup'))
    .queryAllByRole('row')
    .map((r) => r.firstElementChild?.textContent);
const some: Row[] = [
  { id: 'C10', value: '1 µF' },
  { id: 'C7', value: '10 µF' },
  { id: 'R1', value: '4.7 kΩ' },
];

describe('a table', () => {
  it('sorts numbers in names as numbers, and turns round at the second press', async () => {
    shown(some);
    await waitFor(() => expect(names()).toEqual(['C7', 'C10', 'R1']));
    await fireEvent.click(screen.getByRole('button', { name: /^Part/ }));
    await waitFor(() => expect(names()).toEqual(['R1', 'C10', 'C7']));
    expect(screen.getByRole('columnheader', { name: /^Part/ }).getAttribute('aria-sort')).toBe('descending');
    await fireEvent.click(screen.getByRole('button', { name: /^Value/ }));
    await waitFor(() => expect(names()).toEqual(['C10', 'R1', 'C7']));
  });
  it('finds by every word, also by what is not shown, and says how many', async () => {
    shown(some);
    const find = screen.getByLabelText('Find a part');
    await fireEvent.input(find, { target: { value: 'µf c1' } });
    await waitFor(() => expect(names()).toEqual(['C10']));
    expect(screen.getByText('1 of 3 parts')).toBeTruthy();
    await fireEvent.input(find, { target: { value: 'hidden' } });
    await waitFor(() => expect(names()).toEqual(['C7']));
    await fireEvent.input(find, { target: { value: 'zzz' } });
    expect(await screen.findByText('No parts of that name.')).toBeTruthy();
  });
  it('is walked by keys from the selected row, within its ends', async () => {
    const onselect = vi.fn<(row: Row) => void>();
    shown(some, { selected: 'C10', onselect });
    const rows = screen.getByRole('rowgroup');
    await fireEvent.keyDown(rows, { key: 'ArrowDown' });
    await fireEvent.keyDown(rows, { key: 'PageDown' });
    await fireEvent.keyDown(rows, { key: 'Home' });
    expect(onselect.mock.calls.map(([r]) => r.id)).toEqual(['R1', 'R1', 'C7']);
  });
  it('has only the rows in sight on the page, and brings the selected one there', async () => {
    const many = Array.from({ length: 10_000 }, (_, n) => ({ id: `R${n + 1}`, value: '1 kΩ' }));
    const { rerender } = shown(many);
    await waitFor(() => expect(names().length).toBeGreaterThan(9));
    expect(names().length).toBeLessThan(40);
    expect(screen.getByRole('grid').getAttribute('aria-rowcount')).toBe('10000');
    await rerender({ selected: 'R7000' });
    await waitFor(() => expect(names()).toContain('R7000'));
    expect(names().length).toBeLessThan(40);
  });
  it('says what there is to do where there is nothing', () => {
    shown([]);
    expect(screen.getByText('No part placed yet.')).toBeTruthy();
  });
});
