import { type InputHTMLAttributes, type ReactNode, useId } from "react";

/** A labelled input with its hint and its error in words. */
export function Field({
  label,
  hint,
  error,
  className = "",
  isNumber = false,
  isLabelHidden = false,
  ...props
}: InputHTMLAttributes<HTMLInputElement> & {
  isNumber?: boolean;
  /** It is there for who hears the page; what stands beside it says it to everybody else. */
  isLabelHidden?: boolean;
  label: string;
  hint?: ReactNode;
  error?: string | undefined;
}) {
  const id = useId();
  return (
    <div className={`flex flex-col gap-[3px] ${className}`}>
      <label htmlFor={id} className={isLabelHidden ? "sr-only" : "text-[13.5px] text-ink-2"}>
        {label}
      </label>
      <input
        id={id}
        className={isNumber ? "num w-full" : "w-full"}
        aria-invalid={error ? true : undefined}
        aria-describedby={error || hint ? `${id}-more` : undefined}
        {...props}
      />
      {(error || hint) && (
        <span id={`${id}-more`} className={`text-[13px] ${error ? "text-stop" : "text-ink-3"}`}>
          {error ?? hint}
        </span>
      )}
    </div>
  );
}

/** A labelled choice from a list. */
export function Pick({
  label,
  value,
  options,
  onChange,
  hideLabel = false,
  className = "",
  disabled = false,
}: {
  label: string;
  value: string;
  options: readonly (readonly [string, string])[];
  onChange: (value: string) => void;
  hideLabel?: boolean;
  className?: string;
  disabled?: boolean;
}) {
  const id = useId();
  return (
    <div className={`flex flex-col gap-[3px] ${className}`}>
      <label htmlFor={id} className={hideLabel ? "sr-only" : "text-[13.5px] text-ink-2"}>
        {label}
      </label>
      <select id={id} value={value} disabled={disabled} onChange={(e) => onChange(e.target.value)}>
        {options.map(([v, text]) => (
          <option key={v} value={v}>
            {text}
          </option>
        ))}
      </select>
    </div>
  );
}
