import type { Found } from '@/services/people/readFind';

/** What is found for the words typed or a code scanned; null when that could not be asked. */
export async function find(words: string): Promise<Found | null> {
  const response = await fetch(`/api/reads/find?q=${encodeURIComponent(words)}`).catch(() => null);
  return response?.ok ? ((await response.json()) as { value: Found }).value : null;
}
