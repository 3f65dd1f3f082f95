import type { ReactNode } from 'react';

/** A field with its label above and what is wrong with it below. */
export function Labelled({ label, fault = '', children }: { label: string; fault?: string; children: ReactNode }) {
  return (
    // biome-ignore lint/a11y/noLabelWithoutControl: the control is what stands in it.
    <label className="grid content-start justify-items-start gap-0.5">
      <span className="second">{label}</span>
      {children}
      {fault && (
        <span className="fault max-w-56" role="alert">
          {fault}
        </span>
      )}
    </label>
  );
}
