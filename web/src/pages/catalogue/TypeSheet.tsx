import { type EquipmentType, entryOf, type SheetField, SHEETS } from '@bastion/core';
import { optionWords } from './words.ts';

function shown(type: EquipmentType, field: SheetField): string {
  const entry = entryOf(type, field);
  if (field.holds === 'choice') return optionWords(entry);
  if (field.holds === 'choices') return entry.split(', ').map(optionWords).join(', ');
  return entry;
}

/** The data sheet of a type, as it would be printed: what is not stated is said to be so. */
export function TypeSheet({ type }: { readonly type: EquipmentType }) {
  return (
    <div className="gap-4 xl:columns-2">
      {SHEETS[type.kind].slice(1).map((group) => (
        <section key={group.title} className="mb-4 break-inside-avoid">
          <h3 className="font-semibold">{group.title}</h3>
          <dl className="condensed">
            {group.fields.map((field) => {
              const text = shown(type, field);
              return (
                <div
                  key={field.key}
                  data-field={`type/${field.key}`}
                  tabIndex={-1}
                  className="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)] gap-x-3 border-t border-rule py-0.5"
                >
                  <dt className="text-quiet">{field.label}</dt>
                  <dd className={`whitespace-pre-line ${text === '' ? 'text-unknown' : ''}`}>
                    {text === '' ? 'not stated' : text === 'none' ? text : `${text} ${field.unit ?? ''}`}
                  </dd>
                </div>
              );
            })}
          </dl>
        </section>
      ))}
    </div>
  );
}
