import type { ReactNode } from 'react';

/** The foot of a window that takes something over: what was refused, the step, and the way out. */
export function WindowFoot(props: {
  sentence: string;
  disabled: boolean;
  onLeave: () => void;
  /** What the step is called. */
  children: ReactNode;
}) {
  return (
    <>
      {props.sentence && (
        <p className="fault" role="alert">
          {props.sentence}
        </p>
      )}
      <div className="flex flex-wrap items-center gap-3">
        <button type="submit" className="btn btn-primary" disabled={props.disabled}>
          {props.children}
        </button>
        <button type="button" className="btn" onClick={props.onLeave}>
          Leave it
        </button>
      </div>
    </>
  );
}
