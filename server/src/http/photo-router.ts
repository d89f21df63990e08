import { routes } from '@wick/contract/api';
import { MAX_PHOTO_BYTES } from '@wick/contract/run/photo';
import { runId as photoIdSchema } from '@wick/contract/run/parts';
import express, { Router, type Request } from 'express';
import type { PhotoService } from '../services/photos/photo-service.ts';
import { ProblemError } from '../services/problem.ts';
import { idOf } from './serve.ts';

/** Pictures are what they are: they are neither sent nor answered as JSON. */
export function photoRouter(photos: PhotoService): Router {
  const router = Router();
  router.put(
    routes.addPhoto.path,
    requirePicture,
    express.raw({ limit: MAX_PHOTO_BYTES, type: () => true }),
    async (request, response) => {
      const bytes: unknown = request.body;
      if (!(bytes instanceof Uint8Array) || bytes.byteLength === 0)
        throw new ProblemError('BAD_PHOTO', 'The picture was not kept: nothing was sent. Add it again.');
      response.status(201).json(await photos.add(idOf(request), photoIdOf(request), bytes));
    },
  );
  router.get(routes.getPhoto.path, async (request, response) => {
    const size = request.query.size === 'small' ? 'small' : 'large';
    const path = await photos.pathOf(idOf(request), photoIdOf(request), size);
    // What is under an id never changes.
    response.setHeader('cache-control', 'private, max-age=31536000, immutable');
    response.type('image/jpeg').sendFile(path, { dotfiles: 'allow' });
  });
  return router;
}

/** Only what this program's own pages send: no foreign form names this type. */
function requirePicture(request: Request, _response: unknown, next: () => void): void {
  if (!/^image\/(jpeg|png)$/.test(request.headers['content-type'] ?? ''))
    throw new ProblemError('WRONG_TYPE', 'Send the picture as image/jpeg or image/png.');
  next();
}

function photoIdOf(request: Request): string {
  const read = photoIdSchema.safeParse(request.params.photoId);
  if (read.success) return read.data;
  throw new ProblemError('BAD_REQUEST', `The picture’s ${read.error.issues[0]!.message}.`);
}
