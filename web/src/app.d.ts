import type { Database } from '$lib/server/db/connect';
import type { CalcIssue } from '@orthos/core';

declare global {
  namespace App {
    interface Locals {
      db: Database;
    }
    interface Error {
      message: string;
      issues?: CalcIssue[];
      stored?: unknown;
    }
  }
}

export {};
