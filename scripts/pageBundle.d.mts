export function bundleForPages(entry: string, minify: boolean): string;
