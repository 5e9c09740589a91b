import type { Database } from '$lib/server/db/connect';
import type { News } from '$lib/server/news';
import type { CalcIssue } from '@orthos/core/ground';

declare global {
  namespace App {
    interface Locals {
      db: Database;
      news: News;
    }
    interface Error {
      message: string;
      issues?: CalcIssue[];
      stored?: unknown;
    }
  }
}

export {};
