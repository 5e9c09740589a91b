/** Raised whenever the same inputs give other results; a plan of an older engine is marked so. */
export const ENGINE_VERSION = 8;
