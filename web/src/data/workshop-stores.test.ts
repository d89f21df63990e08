import { beforeEach, describe, expect, test } from '@jest/globals';
import type { StoredMaterial, StoredMould } from '@wick/contract/api';
import { demoMaterials } from '@wick/plan/demo/materials';
import { demoMoulds } from '@wick/plan/demo/moulds';
import { createPinia, setActivePinia } from 'pinia';
import { kindOfFile } from './incoming.ts';
import { useLibraryStore } from './library-store.ts';
import { useMouldStore } from './mould-store.ts';

/** A server in a few lines: a library and moulds by revision. */
function fakeServer() {
  const library = new Map<string, StoredMaterial>(
    demoMaterials.map((material) => [material.id, { revision: 1, material }]),
  );
  const moulds = new Map<string, StoredMould>(demoMoulds.map((mould) => [mould.id, { revision: 1, mould }]));
  const state = { isUp: true, refuseDelete: false };
  const answer = (status: number, body?: unknown) =>
    new Response(body === undefined ? null : JSON.stringify(body), { status });
  const stale = (current: unknown) =>
    answer(409, { code: 'STALE', title: 'Stale', status: 409, detail: 'Changed elsewhere.', current });
  const fetchFake = async (path: unknown, options: RequestInit = {}): Promise<Response> => {
    if (!state.isUp) throw new TypeError('connection refused');
    const [, kind, id] = /\/api\/(materials|moulds)(?:\/([^?]+))?/.exec(String(path))!;
    const table = (kind === 'materials' ? library : moulds) as Map<string, { revision: number }>;
    if (options.method === 'PUT') {
      const { revision, ...rest } = JSON.parse(String(options.body)) as { revision: number };
      const known = table.get(id!);
      if ((known?.revision ?? 0) !== revision) return stale(known);
      table.set(id!, { ...rest, revision: revision + 1 });
      return answer(200, table.get(id!));
    }
    if (options.method === 'DELETE') {
      if (state.refuseDelete)
        return answer(409, {
          code: 'IN_USE',
          title: 'In use',
          status: 409,
          detail: 'It stays: a job uses it.',
        });
      table.delete(id!);
      return answer(204);
    }
    return answer(200, [...table.values()]);
  };
  return { library, moulds, state, fetchFake };
}

let server: ReturnType<typeof fakeServer>;
beforeEach(() => {
  server = fakeServer();
  globalThis.fetch = server.fetchFake as typeof fetch;
  setActivePinia(createPinia());
});

describe('library store', () => {
  test('is fetched once, and hands out entries by kind', async () => {
    const store = useLibraryStore();
    await store.load();
    const cores = demoMaterials.filter(({ kind }) => kind === 'core');
    expect(store.ofKind('core').map(({ id }) => id)).toEqual(cores.map(({ id }) => id));
    server.state.isUp = false;
    await store.load();
    expect(store.problem).toBeNull();
  });

  test('writes over the revision it shows; a stale write says so and shows what is stored', async () => {
    const store = useLibraryStore();
    await store.load();
    const mesh = store.find('mesh-fine')!.material;
    expect(await store.save({ ...mesh, name: 'Finer' })).toBe(true);
    expect(store.find('mesh-fine')).toMatchObject({ revision: 2, material: { name: 'Finer' } });
    server.library.set('mesh-fine', { revision: 7, material: { ...mesh, name: 'Theirs' } });
    expect(await store.save({ ...mesh, name: 'Mine' })).toBe(false);
    expect(store.problem).toBe('Changed elsewhere.');
    expect(store.find('mesh-fine')).toMatchObject({ revision: 7, material: { name: 'Theirs' } });
  });

  test('what cannot be deleted stays in sight, with the reason', async () => {
    const store = useLibraryStore();
    await store.load();
    server.state.refuseDelete = true;
    expect(await store.remove('mesh-fine')).toBe(false);
    expect(store.problem).toBe('It stays: a job uses it.');
    expect(store.find('mesh-fine')).not.toBeNull();
    server.state.refuseDelete = false;
    expect(await store.remove('mesh-fine')).toBe(true);
    expect(store.find('mesh-fine')).toBeNull();
    expect(await store.remove('nobody')).toBe(false);
  });

  test('without a server it says what to do, and nothing is lost', async () => {
    const store = useLibraryStore();
    await store.load();
    server.state.isUp = false;
    expect(await store.save(store.materials[0]!)).toBe(false);
    expect(store.problem).toContain('The server does not answer');
    expect(store.materials).toHaveLength(demoMaterials.length);
  });
});

describe('mould store', () => {
  test('adds, changes and removes a record', async () => {
    const store = useMouldStore();
    await store.load();
    const [mould] = demoMoulds;
    expect(await store.save({ ...mould!, id: 'own', name: 'Own' })).toBe(true);
    expect(await store.save({ ...store.find('own')!.mould, condition: 'worn' })).toBe(true);
    expect(store.find('own')).toMatchObject({ revision: 2, mould: { condition: 'worn' } });
    await store.remove('own');
    expect(store.find('own')).toBeNull();
  });

  test('a record a job is made on stays', async () => {
    const store = useMouldStore();
    await store.load();
    server.state.refuseDelete = true;
    await store.remove('flat-table');
    expect(store.problem).toContain('It stays');
    expect(store.find('flat-table')).not.toBeNull();
  });
});

test('dropped files go by their names', () => {
  const kinds = ['a.wick.json', 'b.DXF', 'c.svg', 'd.geojson', 'e.xlsx', 'f.csv', 'g.txt', 'none'].map(
    kindOfFile,
  );
  expect(kinds).toEqual(['job', 'drawing', 'drawing', 'drawing', 'library', 'library', 'unknown', 'unknown']);
});
