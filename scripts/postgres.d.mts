/** A PostgreSQL server that runs for a while. */
export interface Postgres {
  readonly port: number;
  readonly url: (name: string) => string;
  readonly create: (name: string, from?: string) => void;
  readonly createUnlessThere: (name: string) => void;
  readonly drop: (name: string) => void;
  readonly run: (program: string, args: readonly string[]) => void;
  readonly start: () => Promise<void>;
  readonly stop: (signal?: NodeJS.Signals) => Promise<void>;
  readonly clear: () => Promise<void>;
}

export function postgresPrograms(): string | null;
export function startPostgres(
  folder: string,
  options?: { readonly port?: number; readonly lasting?: boolean },
): Promise<Postgres>;
