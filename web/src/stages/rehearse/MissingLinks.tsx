import { describePlaces, type Path } from '@bastion/core';
import { Link } from 'react-router';
import { useOpenJob } from '../../state/job.ts';
import { fieldHref } from '../../ui/fieldLinks.ts';

/** What would have to be said before this can be played, each with the way to its field. */
export function MissingLinks({
  missing,
  title = 'This cannot be played yet. Not known:',
}: {
  readonly missing: readonly Path[];
  readonly title?: string;
}) {
  const { id, design } = useOpenJob();
  return (
    <div className="text-unknown">
      <p>{title}</p>
      <ul className="list-disc pl-5">
        {missing.slice(0, 12).map((path) => (
          <li key={path.join('/')}>
            <Link to={fieldHref(id, path)}>{describePlaces(design, [path])}</Link>
          </li>
        ))}
      </ul>
      {missing.length > 12 && <p>and {missing.length - 12} more</p>}
    </div>
  );
}
