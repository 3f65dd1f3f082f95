/** Where a request comes from, as our own listener says it (decision 0008). */
export const clientAddress = (request: Request): string =>
  (request.headers.get('x-forwarded-for') ?? 'direct').slice(0, 60);
