/** The kernel compiled to WebAssembly, base64. */
export function compileKernel(): Promise<string>;
