/** What the kernel's host uses of WebAssembly and base64; present in browsers and Node alike, but in no plain library of types. */
declare namespace WebAssembly {
  class Module {
    constructor(bytes: Uint8Array<ArrayBuffer>);
  }
  class Memory {
    constructor(descriptor: { initial: number });
    readonly buffer: ArrayBuffer;
  }
  class Instance {
    constructor(module: Module, imports: Record<string, Record<string, unknown>>);
    readonly exports: Record<string, unknown>;
  }
}

declare function atob(data: string): string;
