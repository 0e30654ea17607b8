export function bundle(code: string, minify?: boolean): Promise<string>;
export function gzipped(text: string): number;
export function using(file: string, name: string): string;
