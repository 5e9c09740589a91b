import { cleanup, configure, fireEvent, render, screen, waitFor } from '@testing-library/svelte';
import { afterEach, beforeAll, describe, expect, it, vi } from 'vitest';
import PackagePick from '../../src/lib/boards/PackagePick.svelte';
import Check from '../../src/lib/ui/Check.svelte';
import OneOf from '../../src/lib/ui/OneOf.svelte';
import Select from '../../src/lib/ui/Select.svelte';

// lists are placed, and shown, a little later than they are there
configure({ asyncUtilTimeout: 10_000, defaultHidden: true });
// what a browser has and jsdom has not
beforeAll(() => {
  Element.prototype.scrollIntoView = () => {};
  Element.prototype.hasPointerCapture = () => false;
  globalThis.ResizeObserver = class {
    observe() {}
    unobserve() {}
    disconnect() {}
  };
});
afterEach(cleanup);

const options = () => screen.getAllByRole('option').map((o) => o.textContent?.trim());

describe('Select', () => {
  const props = { label: 'Kind', choices: { wind: 'blown at', heat: 'hot' }, none: 'choose', value: '' };

  // the list is loaded once for all fields, so what comes before it stands first
  it('takes the one whose first letters were typed, also those before its list is loaded', async () => {
    const onchange = vi.fn();
    const choices = { open: 'Open', tern: 'Tern one', other: 'Rail', two: 'Tern two' };
    render(Select, { label: 'Board', choices, value: '', onchange });
    const field = screen.getByRole('combobox', { name: 'Board' });
    field.focus();
    for (const key of 'tern t') await fireEvent.keyDown(document.activeElement ?? field, { key });
    expect(onchange.mock.calls).toEqual([['tern'], ['two']]);
    expect(screen.getByRole('combobox').dataset.value).toBe('two');
  });
  it('opens by the very press that loads its list, keeps the focus, and tells what was taken', async () => {
    const onchange = vi.fn();
    render(Select, { ...props, onchange });
    // the first field of all: its list comes between press and letting go
    await fireEvent.pointerDown(screen.getByRole('combobox', { name: 'Kind' }));
    screen.getByRole('combobox', { name: 'Kind' }).focus();
    await waitFor(() => expect(options()).toEqual(['choose', 'blown at', 'hot']));
    const field = screen.getByRole('combobox', { name: 'Kind' });
    expect(document.activeElement, 'the field keeps the focus when its list is loaded').toBe(field);
    await fireEvent.keyDown(field, { key: 'ArrowDown' });
    await fireEvent.keyDown(field, { key: 'Enter' });
    await waitFor(() => expect(field.textContent).toContain('blown at'));
    expect(onchange.mock.calls).toEqual([['wind']]);
  });
  it('goes with its form under its name, also before the list is loaded', () => {
    const { container } = render(Select, { ...props, name: 'kind', value: 'heat' });
    expect(container.querySelector<HTMLInputElement>('input[name=kind]')?.value).toBe('heat');
  });
  it('shows what is kept even where it is no longer offered', () => {
    render(Select, { ...props, value: 'gone' });
    expect(screen.getByRole('combobox').textContent).toContain('gone');
  });
});

describe('Check and OneOf', () => {
  it('are ticked and chosen by their words', async () => {
    const ticked = vi.fn();
    const { createRawSnippet } = await import('svelte');
    const children = createRawSnippet(() => ({ render: () => '<span>leaded</span>' }));
    render(Check, { checked: false, onchange: ticked, children });
    await fireEvent.click(screen.getByText('leaded'));
    expect(ticked).toHaveBeenCalledWith(true);

    const chosen = vi.fn();
    render(OneOf, { 'aria-label': 'Sides', choices: { '2': 'two', '4': 'four' }, value: '2', onchange: chosen });
    await fireEvent.click(screen.getByText('four'));
    expect(chosen).toHaveBeenCalledWith('4');
  });
});

describe('PackagePick', () => {
  const type = async (text: string) => {
    const field = screen.getByRole('combobox', { name: 'Package' });
    await fireEvent.keyDown(field, { key: text[0] });
    await fireEvent.input(field, { target: { value: text } });
    return field;
  };
  it.each([
    ['qfp 44', 'QFP-44', 'QFP-44'],
    ['0402 c', 'C0402', '0402 ceramic'],
    ['sot23', 'SOT-23', 'SOT-23'],
  ])('takes "%s" for a %s', async (said, id, label) => {
    const onpick = vi.fn();
    render(PackagePick, { 'aria-label': 'Package', onpick });
    const field = await type(said);
    await waitFor(() => expect(options()[0]).toContain(label));
    await waitFor(() => expect(screen.getAllByRole('option')[0].hasAttribute('data-highlighted')).toBe(true));
    await fireEvent.keyDown(field, { key: 'Enter' });
    expect(onpick).toHaveBeenLastCalledWith(id);
    expect((field as HTMLInputElement).value).toBe(id);
  });
  it('takes the shop’s own by its name', async () => {
    const onpick = vi.fn();
    const own = [{ label: 'Our long relay', designation: 'box:outline=box,l=20,w=10,h=12' }];
    render(PackagePick, { 'aria-label': 'Package', onpick, own });
    const field = await type('long relay');
    await waitFor(() => expect(options()[0]).toContain('own'));
    await waitFor(() => expect(screen.getAllByRole('option')[0].hasAttribute('data-highlighted')).toBe(true));
    await fireEvent.keyDown(field, { key: 'Enter' });
    expect(onpick).toHaveBeenCalledWith(own[0].designation);
  });
  it('says what to do where nothing is found', async () => {
    render(PackagePick, { 'aria-label': 'Package' });
    await type('zz nothing');
    expect(await screen.findByText(/No package of that name/)).toBeTruthy();
  });
  it('finds a part by its legs and size where nobody knows its name', async () => {
    const onpick = vi.fn();
    render(PackagePick, { 'aria-label': 'Package', onpick });
    await fireEvent.click(screen.getByRole('button', { name: 'By its legs and size' }));
    await fireEvent.click(await screen.findByText('on four'));
    await fireEvent.input(screen.getByLabelText('Legs on one side'), { target: { value: '11' } });
    await fireEvent.input(screen.getByLabelText('Its body, mm'), { target: { value: '10 × 10' } });
    await fireEvent.click((await screen.findAllByText(/QFP-44/))[0]);
    expect(onpick).toHaveBeenCalledWith('QFP-44');
    expect(screen.getByRole<HTMLInputElement>('combobox', { name: 'Package' }).value).toBe('QFP-44');
  });
});
