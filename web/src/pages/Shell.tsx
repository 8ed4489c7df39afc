import { POWERS } from '@bastion/core';
import { Keyboard, LogOut, Moon, Sun } from 'lucide-react';
import { useEffect, useState } from 'react';
import { Link, Outlet, useLocation } from 'react-router';
import { useSession } from '../state/session.ts';
import { useTheme } from '../state/theme.ts';
import { ShortcutHelp } from '../ui/ShortcutHelp.tsx';
import { SignIn } from './SignIn.tsx';

function ThemeButton() {
  const { theme, choose } = useTheme();
  const next = theme === 'light' ? 'dark' : 'light';
  const Icon = theme === 'light' ? Moon : Sun;
  return (
    <button
      type="button"
      className="button button-quiet"
      onClick={() => choose(next)}
      aria-label={`Switch to the ${next} theme`}
    >
      <Icon size={16} aria-hidden="true" />
    </button>
  );
}

/** The frame around everything: who is signed in, the theme, and the way to the jobs. */
export function Shell() {
  const { session, ask, leave } = useSession();
  // A one-time link is followed by somebody who is not signed in yet.
  const isJoining = useLocation().pathname.startsWith('/join/');
  const [helpIsOpen, setHelpIsOpen] = useState(false);
  useEffect(() => void ask(), [ask]);
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      const inField =
        event.target instanceof HTMLElement &&
        event.target.closest('input, select, textarea, [role="grid"]') !== null;
      if (event.key === '?' && !inField) setHelpIsOpen(true);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
  return (
    <div className="flex h-dvh flex-col print:block print:h-auto">
      <a href="#content" className="sr-only focus:not-sr-only focus:p-2">
        Skip to the content
      </a>
      <header className="no-print flex min-h-11 items-center gap-2 border-b border-rule px-3">
        <Link to="/" className="flex items-center gap-2 font-semibold text-ink no-underline">
          <img src="/icon.svg" alt="" width={20} height={20} />
          <span className="max-sm:sr-only">Zealous Bastion</span>
        </Link>
        {session.kind === 'in' && (
          <nav className="flex gap-3 pl-3" aria-label="Workbench">
            <Link to="/">Jobs</Link>
            <Link to="/catalogue">Catalogue</Link>
            {POWERS[session.user.role].manage && <Link to="/people">People</Link>}
          </nav>
        )}
        <span className="flex-1" />
        {session.kind === 'in' && (
          <Link to="/account" className="truncate max-sm:hidden" title="Your password and sessions">
            {session.user.name}, {session.user.role}
          </Link>
        )}
        <button
          type="button"
          className="button button-quiet max-sm:hidden"
          onClick={() => setHelpIsOpen(true)}
          aria-label="Keyboard shortcuts"
        >
          <Keyboard size={16} aria-hidden="true" />
        </button>
        <ThemeButton />
        {session.kind === 'in' && (
          <button
            type="button"
            className="button button-quiet"
            onClick={() => void leave()}
            aria-label="Sign out"
          >
            <LogOut size={16} aria-hidden="true" />
          </button>
        )}
      </header>
      <div id="content" className="min-h-0 flex-1 print:overflow-visible">
        {session.kind === 'asking' && <p className="p-8 text-quiet">One moment…</p>}
        {session.kind === 'failed' && (
          <div className="p-8">
            <p>{session.message}</p>
            <button type="button" className="button mt-3" onClick={() => void ask()}>
              Try again
            </button>
          </div>
        )}
        {session.kind === 'out' && !isJoining && <SignIn />}
        {(session.kind === 'in' || (session.kind === 'out' && isJoining)) && <Outlet />}
      </div>
      <ShortcutHelp isOpen={helpIsOpen} onClose={() => setHelpIsOpen(false)} />
    </div>
  );
}
