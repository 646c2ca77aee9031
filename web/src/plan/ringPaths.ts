import type { RingFile } from '../api/client';

/** Every way into a value of this type, as the server names fields: `finger.size`, `band.runs.2.coils`. */
type PathIn<T> = T extends readonly (infer Item)[]
  ? `${number}` | `${number}.${PathIn<Item>}`
  : T extends object
    ? { [Key in keyof T & string]: Key | `${Key}.${PathIn<NonNullable<T[Key]>>}` }[keyof T & string]
    : never;

/** A field of a ring file: a name that the ring file doesn't have is refused when the page is built. */
export type RingPath = PathIn<RingFile>;

/** A field of a part whose fields are known from its schema only while the page runs. */
export const within = (path: RingPath, name: string | number) => `${path}.${name}` as RingPath;
