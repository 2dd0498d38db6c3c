// The engine's loops over rows, for WebAssembly. All arrays stand in the memory that the engine hands over;
// addresses are in bytes.
export { gatherDoubles, gatherInts, scaled, toDoubles } from "./cells";
export * from "./bins";
export * from "./scatter";
export * from "./select";
export * from "./group";
export * from "./fold";
export * from "./compensate";
export * from "./test";
