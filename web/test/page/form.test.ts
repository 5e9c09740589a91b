import { cleanup, configure, fireEvent, render, screen, waitFor } from '@testing-library/svelte';
import { tick } from 'svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';

/** What the page does with a post, and with somebody who goes elsewhere. */
const kit = vi.hoisted(() => ({
  leave: undefined as ((navigation: object) => void) | undefined,
  went: [] as string[],
  send: undefined as ((input: object) => (outcome: object) => Promise<void>) | undefined,
}));
vi.mock('$app/navigation', () => ({
  beforeNavigate: (f: typeof kit.leave) => (kit.leave = f),
  goto: (url: URL) => kit.went.push(url.pathname),
}));
vi.mock('$app/forms', () => ({ enhance: (_: HTMLFormElement, send: typeof kit.send) => void (kit.send = send) }));

const { default: LeaveGuard } = await import('../../src/lib/ui/LeaveGuard.svelte');
await import('../../src/lib/ui/LeaveDialog.svelte');
const { default: NameForm } = await import('./NameForm.svelte');
const { isUnsaved } = await import('../../src/lib/ui/unsaved.svelte');

configure({ asyncUtilTimeout: 10_000, defaultHidden: true });
beforeEach(() => {
  kit.went = [];
  globalThis.ResizeObserver = class {
    observe() {}
    unobserve() {}
    disconnect() {}
  };
});
afterEach(cleanup);

const go = (more: object = {}) => {
  const cancel = vi.fn();
  kit.leave?.({ type: 'link', willUnload: false, to: { url: new URL('http://bench.example/kit') }, cancel, ...more });
  return cancel;
};
const typed = async (text = 'Marla') => {
  const field = screen.getByLabelText('Customer');
  await fireEvent.input(field, { target: { value: text } });
  return field as HTMLInputElement;
};

describe('a posted form', () => {
  it('says at a field what is wrong with it, and keeps what was typed', () => {
    render(NameForm, { answer: { values: { customer: 'M' }, issues: { customer: 'Who brought it?' } } });
    const field = screen.getByLabelText('Customer') as HTMLInputElement;
    expect(field.value).toBe('M');
    expect(field.getAttribute('aria-invalid')).toBe('true');
    expect(document.getElementById(field.getAttribute('aria-describedby') ?? '')?.textContent).toBe('Who brought it?');
  });
  it('goes by the answer to itself alone where a page has several', () => {
    render(NameForm, { id: 'a', answer: { id: 'b', values: { customer: 'M' }, issues: { customer: 'no' } } });
    const field = screen.getByLabelText('Customer') as HTMLInputElement;
    expect([field.value, field.getAttribute('aria-invalid')]).toEqual(['starts so', null]);
  });
  it('is busy on its way, and still to be saved when it is refused', async () => {
    const told = vi.fn();
    const { container } = render(NameForm, { answer: null, ondone: told });
    const form = container.querySelector('form') as HTMLFormElement;
    form.addEventListener('submit', (e) => e.preventDefault());
    const save = screen.getByRole('button', { name: 'Save' }) as HTMLButtonElement;
    await typed();
    const done = kit.send?.({ formElement: form });
    await tick();
    expect([save.disabled, isUnsaved()]).toEqual([true, false]);
    const update = vi.fn(async () => {});
    await done?.({ result: { type: 'failure', status: 400 }, update });
    await tick();
    expect([save.disabled, isUnsaved(), told.mock.calls.length]).toEqual([false, true, 1]);
    expect(update).toHaveBeenCalledWith({ reset: false });
    // sent by script: refused or not, only closing it lets go
    await fireEvent.submit(form);
    expect(isUnsaved()).toBe(true);
  });
});

describe('leaving', () => {
  it('asks once something is typed; staying keeps it, leaving goes where one was going', async () => {
    render(LeaveGuard);
    render(NameForm, { answer: null });
    expect(go()).not.toHaveBeenCalled();
    const field = await typed();
    expect(go()).toHaveBeenCalled();
    await fireEvent.click(await screen.findByRole('button', { name: 'Stay here' }));
    await waitFor(() => expect(screen.queryByText('Not saved yet')).toBeNull());
    expect([field.value, kit.went, isUnsaved()]).toEqual(['Marla', [], true]);
    go();
    await fireEvent.click(await screen.findByRole('button', { name: 'Leave without it' }));
    expect([kit.went, isUnsaved()]).toEqual([['/kit'], false]);
  });
  it('leaves it to the browser where the window closes, and lets a sent form and a link inside of one go', async () => {
    render(LeaveGuard);
    render(NameForm, { answer: null });
    await typed();
    expect(go({ willUnload: true, to: null })).toHaveBeenCalled();
    expect(go({ type: 'form' })).not.toHaveBeenCalled();
    await fireEvent.click(screen.getByRole('link', { name: 'Cancel' }));
    expect(go()).not.toHaveBeenCalled();
    await typed();
    cleanup();
    expect(isUnsaved()).toBe(false);
  });
});
