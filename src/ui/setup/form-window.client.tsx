'use client';

import type { FormEvent, ReactNode } from 'react';
import { Modal } from '../frame/modal.client';

/** A form in a window of its own. */
export function FormWindow({
  title,
  onClose,
  onSubmit,
  children,
}: {
  title: string;
  onClose: () => void;
  onSubmit: () => void;
  children: ReactNode;
}) {
  const submit = (event: FormEvent) => {
    event.preventDefault();
    onSubmit();
  };
  return (
    <Modal title={title} width="w-[560px]" onLeave={onClose}>
      <form onSubmit={submit} className="grid gap-3 p-5">
        <h2 className="head">{title}</h2>
        {children}
      </form>
    </Modal>
  );
}
