import { type Symptom, SYMPTOMS } from '@bastion/core';
import { useId, useState } from 'react';
import type { Log } from './useLog.ts';

const isSymptom = (key: string): key is Symptom => key in SYMPTOMS;

function Found({ value, onTake }: { readonly value: string; readonly onTake: (value: string) => void }) {
  const id = useId();
  const [text, setText] = useState(value);
  return (
    <label htmlFor={id} className="block">
      <span className="block text-[13px] text-quiet">What it was, and how it was mended</span>
      <input
        id={id}
        className="input"
        maxLength={500}
        value={text}
        onChange={({ target }) => setText(target.value)}
        onBlur={() => text.trim() !== value && onTake(text.trim())}
        onKeyDown={({ key }) => key === 'Enter' && text.trim() !== value && onTake(text.trim())}
      />
    </label>
  );
}

/** The searches of this job, the newest first: what was seen, how it was gone about, and what it was. */
export function FaultLog({ log, openId }: { readonly log: Log; readonly openId: string | undefined }) {
  if (log.entries.length === 0) return null;
  return (
    <section className="sheet p-3" aria-label="Searches in this job">
      <h3 className="font-semibold">Searches in this job</h3>
      {log.entries.map((entry) => {
        const { id, symptom, answers, left, found, by, at } = entry;
        const who = [by, at === undefined ? undefined : new Date(at).toLocaleString()];
        return (
          <details key={id} className="border-t border-rule py-1" open={id === openId}>
            <summary>
              {isSymptom(symptom) ? SYMPTOMS[symptom] : symptom}
              <span className="text-[13px] text-quiet">
                {' '}
                {who.filter((one) => one !== undefined).join(', ')}
                {found === undefined ? '' : `: ${found}`}
              </span>
            </summary>
            {id !== openId && (
              <ol className="list-decimal pl-5">
                {answers.map(({ measurementId, words }) => (
                  <li key={measurementId}>{words}</li>
                ))}
              </ol>
            )}
            {id !== openId && found === undefined && left.length > 0 && (
              <p className="text-quiet">Left: {left.join('; ')}</p>
            )}
            {log.mayChange(entry) ? (
              <Found key={found ?? ''} value={found ?? ''} onTake={(value) => log.find(id, value)} />
            ) : (
              found !== undefined && <p>{found}</p>
            )}
          </details>
        );
      })}
    </section>
  );
}
