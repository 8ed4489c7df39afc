import { type EquipmentKind, type EquipmentType, KIND_WORDS } from '@bastion/core';
import { Link } from 'react-router';
import { useCatalogue } from '../../state/catalogue.ts';

const KINDS = Object.keys(KIND_WORDS).filter((kind): kind is EquipmentKind => kind in KIND_WORDS);

const jobs = (count: number): string =>
  count === 0 ? '' : count === 1 ? 'used in 1 job' : `used in ${count} jobs`;

interface TypeListProps {
  readonly find: string;
  readonly chosenId: string | undefined;
}

/** All types by kind; the firm's own are marked, and in how many jobs each is used. */
export function TypeList({ find, chosenId }: TypeListProps) {
  const { types, own, usage } = useCatalogue();
  const ownIds = new Set(own.map(({ type }) => type.id));
  const wanted = find.trim().toLowerCase();
  const matches = (type: EquipmentType): boolean =>
    wanted === '' ||
    `${type.name} ${type.note ?? ''} ${KIND_WORDS[type.kind][0]}`.toLowerCase().includes(wanted);
  const shown = types.filter(matches);
  if (shown.length === 0)
    return <p className="p-3 text-quiet">No type has “{find}” in its name, note or kind.</p>;
  return (
    <nav aria-label="Types">
      {KINDS.map((kind) => {
        const ofKind = shown.filter((type) => type.kind === kind);
        if (ofKind.length === 0) return null;
        return (
          <section key={kind} className="mb-3">
            <h2 className="text-[13px] font-semibold text-quiet">{KIND_WORDS[kind][1]}</h2>
            <ul>
              {ofKind.map((type) => (
                <li key={type.id}>
                  <Link
                    to={`/catalogue/${type.id}`}
                    aria-current={type.id === chosenId ? 'page' : undefined}
                    className={`block border-t border-rule px-1 py-1 no-underline ${type.id === chosenId ? 'bg-chosen font-semibold' : ''}`}
                  >
                    {type.name}
                    <span className="block text-[13px] font-normal text-quiet">
                      {[
                        ownIds.has(type.id) ? `own, version ${type.version}` : 'sample',
                        jobs(usage[type.id] ?? 0),
                      ]
                        .filter((part) => part !== '')
                        .join(' · ')}
                    </span>
                  </Link>
                </li>
              ))}
            </ul>
          </section>
        );
      })}
    </nav>
  );
}
