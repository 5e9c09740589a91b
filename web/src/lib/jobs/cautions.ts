/** Cautions by step, loaded after a page: they know every tool. */
export { cautionsFor } from '@orthos/core/hands';
