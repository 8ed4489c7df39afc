import { pageOf, type Path } from '@bastion/core';
import { useEffect, useRef } from 'react';
import { useLocation } from 'react-router';

export const fieldKey = (path: Path): string => path.join('/');

export const fieldHref = (jobId: number, path: Path): string =>
  path[0] === 'types'
    ? `/catalogue/${String(path[1])}${path.length > 2 ? `#field=${encodeURIComponent(`type/${path.slice(2).join('.')}`)}` : ''}`
    : `/jobs/${jobId}/${pageOf(path)}#field=${encodeURIComponent(fieldKey(path))}`;

/** Brings the field that the address names into view and puts the keyboard there. */
export function useFieldFromAddress(isReady = true): void {
  const { hash, key } = useLocation();
  const handled = useRef(new Set<string>());
  useEffect(() => {
    // Coming back to an address, by closing a working over it, leaves the keyboard where it was.
    if (!isReady || !hash.startsWith('#field=') || handled.current.has(key)) return;
    handled.current.add(key);
    const wanted = decodeURIComponent(hash.slice('#field='.length));
    const parts = wanted.split('/');
    // The exact field, or the nearest thing around it that is on the screen.
    for (let length = parts.length; length > 0; length -= 1) {
      const found = document.querySelector<HTMLElement>(
        `[data-field="${CSS.escape(parts.slice(0, length).join('/'))}"]`,
      );
      if (found === null) continue;
      for (let at = found.closest('details'); at !== null; at = at.parentElement?.closest('details') ?? null)
        at.open = true;
      found.scrollIntoView({ block: 'center' });
      found.focus();
      return;
    }
  }, [hash, key, isReady]);
}
