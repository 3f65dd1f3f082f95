'use client';

export const PrintButton = () => (
  <button type="button" className="btn btn-primary" onClick={() => window.print()}>
    Print
  </button>
);
