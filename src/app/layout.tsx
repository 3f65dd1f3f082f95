import type { Metadata } from 'next';
import { cookies, headers } from 'next/headers';
import { connection } from 'next/server';
import type { ReactNode } from 'react';
import { Format } from '@/ui/format';
import { FormatProvider } from '@/ui/format-context.client';
import './globals.css';

export const metadata: Metadata = { title: { default: 'Vorrat', template: '%s · Vorrat' } };

export default async function RootLayout({ children }: { children: ReactNode }) {
  await connection();
  const chosen = (await cookies()).get('theme')?.value;
  const theme = chosen === 'paper' || chosen === 'ink' ? chosen : undefined;
  const { locale } = Format.fromAcceptLanguage((await headers()).get('accept-language'));
  return (
    <html lang="en" data-theme={theme}>
      <body>
        <FormatProvider locale={locale}>{children}</FormatProvider>
      </body>
    </html>
  );
}
