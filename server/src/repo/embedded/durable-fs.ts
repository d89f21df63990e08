import type { PGlite } from '@electric-sql/pglite';
import { NodeFS } from '@electric-sql/pglite/nodefs';
import type { Disk } from './disk.ts';

/** The parts of Emscripten's file systems that are used here, which its types leave open. */
interface Stream {
  readonly node: object;
  /** Handle of the host; undefined on a folder. */
  readonly nfd?: number;
}
type Write = (
  stream: Stream,
  buffer: Uint8Array,
  offset: number,
  length: number,
  position?: number,
) => number;
interface HostModule {
  readonly FS: { readonly ErrnoError: new (errno: number) => Error; quit(): void };
  readonly NODEFS: {
    realPath(node: object): string;
    readonly stream_ops: { write: Write; fsync?: (stream: Stream) => number };
  };
  onAbort?: (what: unknown) => void;
}

/** Error numbers of WASI. */
const ENOSPC = 51;
const EIO = 29;

export interface DurableParts {
  readonly disk: Disk;
  /** Makes room on a full disk. @returns whether there was any to make */
  readonly makeRoom: () => boolean;
  readonly onWritten: (path: string, byteCount: number) => void;
  /** A question was answered. */
  readonly onAnswered: () => void;
  /** The database has given up: it answers nothing more and has to be opened anew. */
  readonly onDied: () => void;
}

/**
 * The host's files for the embedded database, with the two things it is not given otherwise: a way to sync them, so that what
 * it acknowledges outlives a power cut by PostgreSQL's own rules, and an end when it gives up, instead of trying for ever.
 */
export class DurableFS extends NodeFS {
  constructor(
    folder: string,
    private readonly parts: DurableParts,
  ) {
    super(folder);
  }

  override async init(pg: PGlite, options: Parameters<NodeFS['init']>[1]) {
    const own = await super.init(pg, options);
    const { preRun = [] } = own.emscriptenOpts;
    const equip = (module: unknown) => this.equip(module as HostModule);
    return { emscriptenOpts: { ...own.emscriptenOpts, preRun: [...preRun, equip] } };
  }

  /** PGlite calls this after each answer. */
  override async syncToFs() {
    this.parts.onAnswered();
  }

  private equip(module: HostModule) {
    const { disk, makeRoom, onWritten, onDied } = this.parts;
    const { FS, NODEFS } = module;
    const { write } = NODEFS.stream_ops;
    const asErrno = (error: unknown) =>
      error instanceof FS.ErrnoError
        ? error
        : new FS.ErrnoError((error as NodeJS.ErrnoException).code === 'ENOSPC' ? ENOSPC : EIO);

    NODEFS.stream_ops.write = (stream, buffer, offset, length, position) => {
      const path = NODEFS.realPath(stream.node);
      for (;;)
        try {
          disk.beforeWrite(path, length);
          const count = write(stream, buffer, offset, length, position);
          onWritten(path, count);
          return count;
        } catch (caught) {
          const error = asErrno(caught) as Error & { errno?: number };
          if (error.errno !== ENOSPC || !makeRoom()) throw error;
        }
    };
    NODEFS.stream_ops.fsync = (stream) => {
      try {
        disk.sync(NODEFS.realPath(stream.node), stream.nfd ?? null);
        return 0;
      } catch (error) {
        throw asErrno(error);
      }
    };
    module.onAbort = () => {
      // The loop that feeds it messages asks for these. Without an answer it ends; it would else go round for ever, or wake what is
      // dead, which then ends the whole process.
      const refuse = () => {
        throw new Error('The database has stopped.');
      };
      Object.assign(module, {
        _pq_buffer_remaining_data: refuse,
        stackSave: refuse,
        stackRestore: refuse,
        _PostgresSendReadyForQueryIfNecessary: refuse,
      });
      FS.quit();
      onDied();
    };
  }
}
