'use client';

import { DatabaseDown, Notice } from '@/ui/frame/states';

export default function WorkError({ error, reset }: { error: Error & { digest?: string }; reset: () => void }) {
  if (error.digest === 'database_unavailable') return <DatabaseDown />;
  return (
    <Notice title="Something went wrong on our side">
      Nothing was changed. The fault has been noted{error.digest ? ` (${error.digest})` : ''}.{' '}
      <button type="button" className="link text-action underline" onClick={reset}>
        Try again
      </button>
    </Notice>
  );
}
