import { env } from '$env/dynamic/private';

/** The time; fixed by ORTHOS_NOW (ISO) where pictures and tests must not change from day to day. */
export function now(): Date {
  return env.ORTHOS_NOW ? new Date(env.ORTHOS_NOW) : new Date();
}
