import { pageOf, type Path } from '@bastion/core';
import { useEffect, useRef } from 'react';
import { useLocation } from 'react-router';

export const fieldKey = (path: Path): string => path.join('/');

export const fieldHref = (jobId: number, path: Path): string =>
  path[0] === 'types'
    ? `/catalogue/${String(path[1])}${path.length > 2 ? `#field=${encodeURIComponent(`type/${path.slice(2).join('.')}`)}` : ''}`
    : `/jobs/${jobId}/${pageOf(path)}#field=${encodeURIComponent(fieldKey(path))}`;

/** How long a field may take to be drawn after its page, ms: long tables follow the first picture, late where much is under way. */
const LONGEST_WAIT_MS = 30_000;
/** Whoever has begun on something else is not taken away from it. */
const BEGINNINGS = ['pointerdown', 'keydown', 'wheel', 'touchmove'] as const;

const fieldElement = (key: string): HTMLElement | null =>
  document.querySelector(`[data-field="${CSS.escape(key)}"]`);

/** The nearest thing around a field that is on the screen. */
function nearest(key: string): HTMLElement | null {
  const parts = key.split('/');
  for (let length = parts.length; length > 0; length -= 1) {
    const found = fieldElement(parts.slice(0, length).join('/'));
    if (found !== null) return found;
  }
  return null;
}

function goTo(element: HTMLElement): void {
  for (let at = element.closest('details'); at !== null; at = at.parentElement?.closest('details') ?? null)
    at.open = true;
  element.scrollIntoView({ block: 'center' });
  element.focus();
}

/** Goes to a field once it is drawn, unless somebody has begun on something else. Returns how to stop waiting. */
function waitFor(key: string): () => void {
  const observer = new MutationObserver(() => {
    const found = fieldElement(key);
    if (found === null) return;
    stop();
    goTo(found);
  });
  const timer = setTimeout(() => stop(), LONGEST_WAIT_MS);
  const stop = (): void => {
    clearTimeout(timer);
    observer.disconnect();
    for (const beginning of BEGINNINGS) window.removeEventListener(beginning, stop);
  };
  observer.observe(document.body, { childList: true, subtree: true });
  for (const beginning of BEGINNINGS) window.addEventListener(beginning, stop, { passive: true });
  return stop;
}

/** Brings the field that the address names into view and puts the keyboard there. */
export function useFieldFromAddress(isReady = true): void {
  const { hash, key } = useLocation();
  const handled = useRef(new Set<string>());
  useEffect(() => {
    // Coming back to an address, by closing a working over it, leaves the keyboard where it was.
    if (!isReady || !hash.startsWith('#field=') || handled.current.has(key)) return undefined;
    handled.current.add(key);
    const wanted = decodeURIComponent(hash.slice('#field='.length));
    const found = nearest(wanted);
    if (found !== null) goTo(found);
    return found?.dataset.field === wanted ? undefined : waitFor(wanted);
  }, [hash, key, isReady]);
}
