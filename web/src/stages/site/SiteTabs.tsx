import { NavLink } from 'react-router';
import { useOpenJob } from '../../state/job.ts';

const TABS = [
  { to: 'site', label: 'Supply and place' },
  { to: 'site/wall', label: 'Wall plan' },
  { to: 'site/delivery', label: 'Delivery' },
] as const;

/** The three sheets of the site stage. */
export function SiteTabs() {
  const { id } = useOpenJob();
  return (
    <nav aria-label="Sheets of the site" className="no-print mb-3 flex gap-1">
      {TABS.map(({ to, label }) => (
        <NavLink
          key={to}
          to={`/jobs/${id}/${to}`}
          end
          className={({ isActive }) =>
            `flex min-h-9 items-center border-b-[3px] px-2.5 text-ink no-underline hover:bg-sheet ${isActive ? 'border-touch bg-chosen font-semibold' : 'border-transparent'}`
          }
        >
          {label}
        </NavLink>
      ))}
    </nav>
  );
}
