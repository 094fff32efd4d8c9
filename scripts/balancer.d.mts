import type { ChildProcess } from 'node:child_process';

export function hasNginx(): boolean;
export function startBalancer(folder: string, port: number, ports: readonly number[]): ChildProcess;
