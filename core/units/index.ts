/**
 * Units. Inside the core: mm, mm2, mm3, g, minutes, degrees Celsius. The names of numbers carry the unit;
 * this folder holds the only conversions. Imperial is a matter of display and entry.
 */
export * from "./constants.ts";
export * from "./display.ts";
export * from "./entry.ts";
export * from "./length.ts";
export * from "./possible.ts";
