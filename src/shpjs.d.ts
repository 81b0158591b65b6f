declare module 'shpjs' {
  export function parseShp(shp: Uint8Array, prj?: string): unknown[];
  export function parseDbf(dbf: Uint8Array, cpg?: string): object[];
  export function combine(parts: [unknown[], object[]]): unknown;
}
