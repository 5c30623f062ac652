import { useEffect, useId, useSyncExternalStore } from 'react';

/** A key that does something, wherever the focus is outside a field. */
export interface Shortcut {
  /** As `KeyboardEvent.key` gives it, letters small: 's', ' ', 'ArrowUp'. */
  key: string;
  /** What it does, for the list of keys: 'Stop the pull'. */
  does: string;
  run: () => void;
  /** Whether holding it down does it again and again; only for what moves by steps. */
  repeats?: boolean;
}

/** A group of keys that are listed together. */
interface Group {
  name: string;
  shortcuts: readonly Shortcut[];
}

const storageKey = 'ruddy-letters';
const typing = /^(text|search|number|date|time|datetime-local|email|password|tel|url|file)$/;

/** Whether keys that are typed belong to what has the focus. */
export function isField(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false;
  if (target instanceof HTMLInputElement) return typing.test(target.type);
  return target.isContentEditable || target.tagName === 'TEXTAREA' || target.tagName === 'SELECT';
}

/** Arrow keys move what has the focus if that is a slider, choice or tab of its own. */
const movesItself = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  (target.tagName === 'INPUT' || /^(slider|radio|tab|option)$/.test(target.role ?? ''));

/** Space presses a box that can be ticked; on a button it is the page's own key, and Enter presses the button. */
const spaceTicks = (target: EventTarget | null) =>
  target instanceof HTMLInputElement
    ? /^(checkbox|radio)$/.test(target.type)
    : target instanceof HTMLElement && target.tagName === 'SUMMARY';

/** All keys that work at the moment, in one place: one listener, one list, one switch. */
class Shortcuts {
  private readonly groups = new Map<string, Group>();
  private readonly listeners = new Set<() => void>();
  private listed: readonly Group[] = [];
  private letters = read();

  constructor() {
    if (typeof window !== 'undefined') window.addEventListener('keydown', (event) => this.press(event));
  }

  set(id: string, group: Group | null) {
    if (group) this.groups.set(id, group);
    else this.groups.delete(id);
    const next = [...this.groups.values()];
    const same =
      next.length === this.listed.length &&
      next.every((g, i) => g.name === this.listed[i]!.name && words(g) === words(this.listed[i]!));
    this.listed = next;
    if (!same) this.tell();
  }

  readonly subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  readonly groupsNow = () => this.listed;

  readonly lettersOn = () => this.letters;

  /**
   * Single letters can be switched off (WCAG 2.2, 2.1.4): who speaks to the computer, or has a cat, types them by
   * mistake.
   */
  switchLetters(on: boolean) {
    this.letters = on;
    try {
      localStorage.setItem(storageKey, on ? 'on' : 'off');
    } catch {
      // it holds for this page
    }
    this.tell();
  }

  private tell() {
    for (const listener of this.listeners) listener();
  }

  private press(event: KeyboardEvent) {
    if (event.defaultPrevented || event.ctrlKey || event.metaKey || event.altKey || isField(event.target)) return;
    if (document.querySelector('[role=dialog][data-state=open]')) return;
    const key = event.key.length === 1 ? event.key.toLowerCase() : event.key;
    if (key.length === 1 && key !== ' ' && !this.letters) return;
    if (key.startsWith('Arrow') && movesItself(event.target)) return;
    if (key === ' ' && spaceTicks(event.target)) return;
    if (key === 'Enter' && event.target instanceof HTMLElement && /^(BUTTON|A|SUMMARY)$/.test(event.target.tagName))
      return;
    const found = [...this.groups.values()].flatMap((g) => g.shortcuts).findLast((s) => s.key === key);
    if (!found) return;
    event.preventDefault();
    if (!event.repeat || found.repeats) found.run();
  }
}

const words = (group: Group) => group.shortcuts.map((s) => `${s.key} ${s.does}`).join();

function read(): boolean {
  try {
    return localStorage.getItem(storageKey) !== 'off';
  } catch {
    return true;
  }
}

export const shortcuts = new Shortcuts();

/** Makes keys work while the component is there. A key that has nothing to do now is left out of the list. */
export function useShortcuts(name: string, list: readonly Shortcut[]) {
  const id = useId();
  useEffect(() => {
    shortcuts.set(id, list.length > 0 ? { name, shortcuts: list } : null);
  });
  useEffect(() => () => shortcuts.set(id, null), [id]);
}

/** The keys that work now, and whether letters are among them. */
export const useShortcutList = () => ({
  groups: useSyncExternalStore(shortcuts.subscribe, shortcuts.groupsNow),
  letters: useSyncExternalStore(shortcuts.subscribe, shortcuts.lettersOn),
});
