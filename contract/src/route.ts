import type { z } from 'zod';

export interface Route {
  readonly method: 'GET' | 'POST' | 'PUT' | 'DELETE';
  readonly path: string;
  readonly body: z.ZodType | null;
  readonly answer: z.ZodType;
}
