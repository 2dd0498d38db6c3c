// The engine's loops over rows, for WebAssembly. All arrays stand in the memory that the engine hands over;
// addresses are in bytes.
export * from "./unpack";
export * from "./select";
export * from "./group";
export * from "./gather";
export * from "./test";
