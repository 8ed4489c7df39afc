interface SwitchProps {
  readonly label: string;
  readonly isOn: boolean;
  readonly words?: readonly [string, string];
  readonly disabled: boolean;
  readonly onTurn: (isOn: boolean) => void;
}

/** A switch of the site: what it is, and how it stands in words beside its knob. */
export function Switch({ label, isOn, words = ['on', 'off'], disabled, onTurn }: SwitchProps) {
  return (
    <button
      type="button"
      role="switch"
      aria-checked={isOn}
      disabled={disabled}
      className="button flex w-full items-center justify-between gap-3 text-left"
      onClick={() => onTurn(!isOn)}
    >
      <span>{label}</span>
      <span className="flex items-center gap-2">
        <span className="text-quiet">{isOn ? words[0] : words[1]}</span>
        <span aria-hidden="true" className={`site-knob ${isOn ? 'site-knob-on' : ''}`} />
      </span>
    </button>
  );
}
